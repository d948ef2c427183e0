import {
  delayWords,
  rateWords,
  troubleWords,
  UNKNOWN_WORDS,
  type ClientTrouble,
  type LossSummary,
  type RunReport,
} from '@/core';

const KIND_WORDS: Record<LossSummary['kind'], string> = {
  stamp: 'UDP packets (STAMP, RFC 8762)',
  'stamp-authenticated': 'authenticated UDP packets (STAMP, RFC 8762)',
  'data-channel': 'messages over an unordered data channel',
};

const percent = (ratio: number | null) => (ratio === null ? UNKNOWN_WORDS : `${(ratio * 100).toFixed(2)} %`);

/** What a paced UDP load showed. */
export function RunPaced({ paced }: { readonly paced: RunReport['paced'] }) {
  if (paced === null) return null;
  return (
    <p className="mt-2 text-[0.9rem]">
      <span className="text-quiet">under UDP paced at {rateWords(paced.sentBps)} both ways</span> loss{' '}
      {percent(paced.lossRatio)}
      <span className="text-quiet">
        {' '}
        · jitter (RFC 3550) up {delayWords(paced.jitterUpMs)}, down {delayWords(paced.jitterDownMs)} · median round trip{' '}
        {delayWords(paced.delay?.medianMs ?? null)} · {paced.sent} packets
      </span>
    </p>
  );
}

/** What numbered packets say of loss; where none were sent, why it is not known. */
export function RunLoss({
  loss,
  trouble,
}: {
  readonly loss: LossSummary | null;
  readonly trouble: ClientTrouble | null;
}) {
  if (loss === null)
    return (
      <p className="mt-4 text-[0.9rem]">
        <span className="text-quiet">loss</span> {UNKNOWN_WORDS}
        <span className="text-quiet">
          {' '}
          · {trouble === null ? 'TCP hides it; it takes UDP, which this run did not have' : troubleWords(trouble)}
        </span>
      </p>
    );
  return (
    <p className="mt-4 text-[0.9rem]">
      <span className="text-quiet">loss</span> {percent(loss.lossRatio)}
      <span className="text-quiet">
        {' '}
        · up {percent(loss.lossUpRatio)}, down {percent(loss.lossDownRatio)} · {loss.sent} {KIND_WORDS[loss.kind]} ·
        reordered {loss.reorderedUp} up, {loss.reorderedDown} down · {loss.duplicates} duplicates · median round trip{' '}
        {delayWords(loss.delay?.medianMs ?? null)}
      </span>
    </p>
  );
}
