import type { ReactNode } from 'react';
import {
  addedDelayWords,
  byteRateWords,
  GLOSSARY,
  nominalRateFigure,
  lossTrouble,
  rateFigure,
  rateWords,
  shareWords,
  sizeWords,
  UNKNOWN_WORDS,
  type DelaySummary,
  type DirectionReport,
  type GlossaryWord,
  type RateEstimate,
  type RunReport,
  type UnsettledCause,
} from '@/core';
import { Term } from '../parts/term';
import { VerdictMark } from '../verdict/verdict-mark';
import { RunDelayTable } from './run-delay-table';
import { RunLoss, RunPaced } from './run-loss';

const STEADY_FROM = 0.97;

/** One figure, or both ends where it is none. */
function rateOrRange(rate: RateEstimate | null): string {
  const range = rate?.rangeBps ?? null;
  return range === null ? rateWords(rate?.steadyBps ?? null) : `${rateFigure(range.low)} to ${rateWords(range.high)}`;
}

function earlierWords(rate: RateEstimate | null): string {
  if (rate === null) return UNKNOWN_WORDS;
  const earlier = rate.earlier ?? [];
  if (earlier.length === 0) return 'none: one level throughout';
  return earlier
    .map(({ bps, fromMs, toMs }) => `${rateWords(bps)} for ${((toMs - fromMs) / 1000).toFixed(1)} s`)
    .join(', then ');
}

function leastWords({ least }: DirectionReport): string {
  if (!least) return 'the contract names none';
  const word = { above: 'at or above the advertised', between: 'between it and the advertised', below: 'below it' }[
    least.word
  ];
  return `${nominalRateFigure(least.leastBps)} Mb/s: ${least.onTheEdge ? 'on its edge' : word}`;
}

function intervalWords({ rate }: DirectionReport): string {
  if (rate === null || rate.intervalBps === null) return UNKNOWN_WORDS;
  return `${rateFigure(rate.intervalBps.low)} – ${rateFigure(rate.intervalBps.high)} Mb/s`;
}

const UNSETTLED_WORDS: Record<UnsettledCause, string> = {
  drifting: 'it still drifted',
  'changed-level': 'it changed level',
  'too-short': 'too short',
  'too-few-windows': 'too little after the change',
};

function steadinessWords(rate: RateEstimate | null): string {
  if (rate === null) return UNKNOWN_WORDS;
  const words = [
    shareWords(rate.steadiness),
    rate.settled ? 'settled' : `unsettled: ${UNSETTLED_WORDS[rate.unsettledBy ?? 'drifting']}`,
    ...(rate.steadiness < STEADY_FROM ? ['dips took a part'] : []),
    ...(rate.dips.length > 0 ? [`${rate.dips.length} ${rate.dips.length === 1 ? 'dip' : 'dips'} below half`] : []),
  ];
  return words.join(', ');
}

function verdictNode({ verdict }: DirectionReport): ReactNode {
  return (
    <span className="inline-flex items-baseline gap-2">
      <VerdictMark verdict={verdict.word} withWord />
      {verdict.word !== 'no verdict' && (
        <span className="text-quiet">
          {shareWords(verdict.share)} of the <Term word="yardstick" />
        </span>
      )}
    </span>
  );
}

const ROWS: readonly (readonly [string, (direction: DirectionReport) => ReactNode])[] = [
  ['rate', ({ rate }) => <strong>{rateOrRange(rate)}</strong>],
  ['in bytes', ({ rate }) => byteRateWords(rate?.steadyBps ?? null)],
  ['95 % interval', intervalWords],
  ['steadiness', ({ rate }) => steadinessWords(rate)],
  ['levels before', ({ rate }) => earlierWords(rate)],
  ['streams', ({ rate }) => rate?.streams ?? UNKNOWN_WORDS],
  ['verdict', verdictNode],
  [
    'share of plan',
    ({ shareOfPlan }) => (shareOfPlan === null ? 'no plan to hold it against' : shareWords(shareOfPlan.share)),
  ],
  ['least of the contract', leastWords],
  ['added delay', ({ addedMs }) => addedDelayWords(addedMs)],
  [
    'queue began to fill',
    ({ queueOnsetMs, loadedDelay }) => {
      if (loadedDelay === null) return UNKNOWN_WORDS;
      return queueOnsetMs === null ? 'never' : `after ${(queueOnsetMs / 1000).toFixed(1)} s`;
    },
  ],
  [
    'working round trips',
    ({ workingRoundTrips }) =>
      workingRoundTrips === null ? UNKNOWN_WORDS : `${Math.round(workingRoundTrips)} a minute`,
  ],
  ['data moved', ({ bytes }) => sizeWords(bytes)],
];

const isTerm = (label: string): label is GlossaryWord => Object.hasOwn(GLOSSARY, label);
const head = 'py-1 font-normal';

/** All figures of a run: direction by direction, both at once where that was measured, delay by load, and loss. */
export function RunFigures({ report }: { readonly report: RunReport }) {
  const { both } = report;
  const delays: [string, DelaySummary | null][] = [
    ['idle', report.idleDelay],
    ['downloading', report.down.loadedDelay],
    ['uploading', report.up.loadedDelay],
    ...(both === null ? [] : ([['both at once', both.delay]] as [string, DelaySummary | null][])),
  ];
  return (
    <section aria-label="Figures">
      <h2 className="mb-2 font-semibold">Figures</h2>
      <table className="w-full border-collapse text-[0.9rem]">
        <thead>
          <tr className="border-b-[1.5px] border-ink text-left text-quiet">
            <th className={head}>
              <span className="sr-only">figure</span>
            </th>
            <th className={head}>
              <span className="mr-2 inline-block h-2.5 w-4 bg-down align-baseline" aria-hidden="true" />
              down
            </th>
            <th className={head}>
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
                {isTerm(label) ? <Term word={label} /> : label}
              </th>
              <td className="py-1 pr-4">{figure(report.down)}</td>
              <td className="py-1">{figure(report.up)}</td>
            </tr>
          ))}
          {both !== null && (
            <tr className="border-b border-hairline">
              <th scope="row" className="py-1 pr-4 text-left font-normal text-quiet">
                both at once
              </th>
              <td className="py-1 pr-4">{rateWords(both.down?.steadyBps ?? null)}</td>
              <td className="py-1">{rateWords(both.up?.steadyBps ?? null)}</td>
            </tr>
          )}
        </tbody>
      </table>
      <RunDelayTable delays={delays} clockStepMs={report.clockStepMs ?? null} />
      <RunLoss loss={report.loss} trouble={lossTrouble(report.troubles ?? [])} />
      <RunPaced paced={report.paced} />
    </section>
  );
}
