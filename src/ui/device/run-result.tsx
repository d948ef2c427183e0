import { addedDelayWords, delayWords, rateFigure } from '@/core';
import type { HandInAnswer } from '@/wire';
import { StrawBar } from '../straw/straw-bar';
import { VerdictMark } from '../verdict/verdict-mark';

function Rate({
  direction,
  rateBps,
  yardstickBps,
}: {
  direction: 'down' | 'up';
  rateBps: number | null;
  yardstickBps: number | null;
}) {
  return (
    <div className="grid grid-cols-[3.5rem_1fr_6.5rem] items-center gap-3">
      <span className="text-quiet">{direction}</span>
      <StrawBar direction={direction} rateBps={rateBps} yardstickBps={yardstickBps} className="!h-4" />
      <span className="text-right">
        <span className="figure text-lg">{rateFigure(rateBps)}</span> <span className="text-sm text-quiet">Mb/s</span>
      </span>
    </div>
  );
}

/** The result on the device: one sentence, three figures. */
export function RunResult({ answer }: { readonly answer: HandInAnswer }) {
  const { result } = answer;
  const loaded = result !== null && (result.downBps !== null || result.upBps !== null);
  if (result === null)
    return (
      <section role="alert" className="border-l-[3px] border-starved pl-4">
        <h1 className="text-xl font-semibold">{answer.figures}</h1>
        <p className="mt-1 text-quiet">{answer.held} The run is kept as unfinished, without figures.</p>
      </section>
    );
  return (
    <section aria-live="polite">
      <h1 className="text-[1.4rem] leading-snug">
        <span className="mr-2 inline-block">
          <VerdictMark verdict={result.verdict} />
        </span>
        <span className="font-semibold">{answer.figures}</span> {answer.lead === 'delay' ? answer.delay : answer.held}
      </h1>
      <p className="mt-1 text-quiet">{answer.lead === 'delay' ? answer.held : answer.delay}</p>
      <div className="mt-5 space-y-2">
        {loaded && (
          <>
            <Rate direction="down" rateBps={result.downBps} yardstickBps={result.yardstickDownBps} />
            <Rate direction="up" rateBps={result.upBps} yardstickBps={result.yardstickUpBps} />
          </>
        )}
        <div className="grid grid-cols-[3.5rem_1fr_6.5rem] items-center gap-3">
          <span className="text-quiet">delay</span>
          <span className="border-b-2 border-dotted border-delay" />
          <span className="text-right">
            <span className="figure text-lg">
              {loaded ? addedDelayWords(result.addedMs) : delayWords(result.idleMs)}
            </span>
            <span className="block text-sm text-quiet">{loaded ? 'more while full' : 'when idle'}</span>
          </span>
        </div>
      </div>
    </section>
  );
}
