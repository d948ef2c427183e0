import {
  addedDelayWords,
  byteRateWords,
  delayWords,
  rateFigure,
  rateWords,
  shareWords,
  sizeWords,
  UNKNOWN_WORDS,
  type DelaySummary,
  type DirectionReport,
  type RunReport,
} from '@/core';
import type { ReactNode } from 'react';
import { VerdictMark } from '../verdict/verdict-mark';

function intervalWords({ rate }: DirectionReport): string {
  if (rate === null || rate.intervalBps === null) return UNKNOWN_WORDS;
  return `${rateFigure(rate.intervalBps.low)} – ${rateFigure(rate.intervalBps.high)} Mb/s`;
}

function steadinessWords({ rate }: DirectionReport): string {
  if (rate === null) return UNKNOWN_WORDS;
  const words = rate.steadiness < 0.97 ? 'dips took a part' : rate.settled ? 'settled' : 'unsettled';
  return `${shareWords(rate.steadiness)}, ${words}`;
}

function verdictNode({ verdict }: DirectionReport): ReactNode {
  return (
    <span className="inline-flex items-baseline gap-2">
      <VerdictMark verdict={verdict.word} withWord />
      {verdict.word !== 'no verdict' && (
        <span className="text-quiet">{shareWords(verdict.share)} of the yardstick</span>
      )}
    </span>
  );
}

const percentiles = (delay: DelaySummary | null) =>
  delay === null
    ? UNKNOWN_WORDS
    : `${delayWords(delay.minMs)} / ${delayWords(delay.p95Ms)} / ${delayWords(delay.maxMs)}`;

const ROWS: readonly (readonly [string, (direction: DirectionReport) => ReactNode])[] = [
  ['rate', ({ rate }) => <strong>{rateWords(rate?.steadyBps ?? null)}</strong>],
  ['in bytes', ({ rate }) => byteRateWords(rate?.steadyBps ?? null)],
  ['95 % interval', intervalWords],
  ['steadiness', steadinessWords],
  ['verdict', verdictNode],
  [
    'share of plan',
    ({ shareOfPlan }) => (shareOfPlan === null ? 'no plan to hold it against' : shareWords(shareOfPlan.share)),
  ],
  ['delay under load', ({ loadedDelay }) => delayWords(loadedDelay?.medianMs ?? null)],
  ['added delay', ({ addedMs }) => addedDelayWords(addedMs)],
  ['min / p95 / max', ({ loadedDelay }) => percentiles(loadedDelay)],
  [
    'working round trips',
    ({ workingRoundTrips }) =>
      workingRoundTrips === null ? UNKNOWN_WORDS : `${Math.round(workingRoundTrips)} a minute`,
  ],
  ['data moved', ({ bytes }) => sizeWords(bytes)],
];

/** All figures of a run, direction by direction, and the idle delay. */
export function RunFigures({ report }: { readonly report: RunReport }) {
  const idle = report.idleDelay;
  return (
    <section aria-label="Figures">
      <h2 className="mb-2 font-semibold">Figures</h2>
      <table className="w-full border-collapse text-[0.9rem]">
        <thead>
          <tr className="border-b-[1.5px] border-ink text-left text-quiet">
            <th className="py-1 font-normal">
              <span className="sr-only">figure</span>
            </th>
            <th className="py-1 font-normal">
              <span className="mr-2 inline-block h-2.5 w-4 bg-down align-baseline" aria-hidden="true" />
              down
            </th>
            <th className="py-1 font-normal">
              <span
                className="mr-2 inline-block h-2.5 w-4 align-baseline"
                style={{ background: 'repeating-linear-gradient(45deg, var(--up) 0 2px, transparent 2px 4px)' }}
                aria-hidden="true"
              />
              up
            </th>
          </tr>
        </thead>
        <tbody>
          {ROWS.map(([label, figure]) => (
            <tr key={label} className="border-b border-hairline">
              <th scope="row" className="py-1 pr-4 text-left font-normal text-quiet">
                {label}
              </th>
              <td className="py-1 pr-4">{figure(report.down)}</td>
              <td className="py-1">{figure(report.up)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-3 text-[0.9rem]">
        <span className="text-quiet">idle delay</span> {delayWords(idle?.medianMs ?? null)}
        {idle !== null && (
          <span className="text-quiet">
            {' '}
            · min / p95 / max {percentiles(idle)} · jitter {delayWords(idle.jitterMs)} (mean difference of successive
            round trips) · {idle.count} probes
          </span>
        )}
      </p>
      <p className="mt-1 text-[0.9rem]">
        <span className="text-quiet">loss</span> {UNKNOWN_WORDS}
        <span className="text-quiet"> · TCP hides it, so a browser over WebSocket cannot tell</span>
      </p>
    </section>
  );
}
