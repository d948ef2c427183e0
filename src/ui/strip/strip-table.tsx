import {
  delayFigure,
  echoedBetween,
  mean,
  median,
  rateFigure,
  type Phase,
  type RateBins,
  type StripData,
} from '@/core';

function meanIn(bins: RateBins | null, fromMs: number, toMs: number): number | null {
  if (bins === null) return null;
  return mean(bins.bps.filter((_, index) => bins.atMs[index]! >= fromMs && bins.atMs[index]! < toMs));
}

interface Second {
  readonly fromS: number;
  readonly phase: Phase;
  readonly downBps: number | null;
  readonly upBps: number | null;
  readonly delayMs: number | null;
}

function secondsOf(data: StripData): Second[] {
  const { atMs, rttMs } = data.probes;
  return Array.from({ length: Math.ceil(data.durationMs / 1000) }, (_, second) => {
    const [fromMs, toMs] = [second * 1000, (second + 1) * 1000];
    return {
      fromS: second,
      phase: data.phases.findLast((span) => span.fromMs <= fromMs + 500)?.phase ?? 'idle',
      downBps: meanIn(data.down, fromMs, toMs),
      upBps: meanIn(data.up, fromMs, toMs),
      delayMs: median(echoedBetween({ sentMs: atMs, rttMs }, fromMs, toMs)),
    };
  });
}

/** The strip in figures, second by second, for whoever cannot or would not read a picture. */
export function StripTable({ data }: { readonly data: StripData }) {
  return (
    <details className="mt-2 text-sm">
      <summary className="w-fit text-quiet underline decoration-hairline underline-offset-4">
        the same in figures
      </summary>
      <table className="mt-2 border-collapse">
        <thead>
          <tr className="text-left text-quiet">
            {['second', 'phase', 'down Mb/s', 'up Mb/s', 'delay ms, median'].map((head) => (
              <th key={head} className="border-b border-hairline py-1 pr-6 font-normal">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="figure text-[0.8rem]">
          {secondsOf(data).map(({ fromS, phase, downBps, upBps, delayMs }) => (
            <tr key={fromS}>
              <td className="pr-6">{fromS}</td>
              <td className="pr-6 font-sans text-sm">{phase}</td>
              <td className="pr-6">{rateFigure(downBps)}</td>
              <td className="pr-6">{rateFigure(upBps)}</td>
              <td>{delayFigure(delayMs)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
