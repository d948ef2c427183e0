import { delayWords, UNKNOWN_WORDS, type LossSummary } from '@/core';

const KIND_WORDS: Record<LossSummary['kind'], string> = {
  stamp: 'UDP packets (STAMP, RFC 8762)',
  'stamp-authenticated': 'authenticated UDP packets (STAMP, RFC 8762)',
  'data-channel': 'messages over an unordered data channel',
};

const percent = (ratio: number | null) => (ratio === null ? UNKNOWN_WORDS : `${(ratio * 100).toFixed(2)} %`);

/** What numbered packets say of loss; where none were sent, why it is not known. */
export function RunLoss({ loss }: { readonly loss: LossSummary | null }) {
  if (loss === null)
    return (
      <p className="mt-4 text-[0.9rem]">
        <span className="text-quiet">loss</span> {UNKNOWN_WORDS}
        <span className="text-quiet"> · TCP hides it; it takes UDP, which this run did not have</span>
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
