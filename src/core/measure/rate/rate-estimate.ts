import { blockBootstrapInterval, type Interval } from '../../stats/block-bootstrap';
import { interquartileMean, movingMeans } from '../../stats/mean';
import { seededRandom } from '../../stats/seeded-random';
import type { CounterSeries } from './counter-series';
import { dipsIn, type Dip } from './dips';
import { areApart, figureOf, LEAST_BINS, RATE_BIN_MS, type EarlierLevel, type UnsettledCause } from './level-figure';
import { rateBins } from './rate-bins';
import { countedFromMs, leastCountedMs, STEADY_RULES, type SteadyRules } from './steady-part';

/** What one direction carried. Rates in bits per second above TCP, times on the clock of the counter series. */
export interface RateEstimate {
  /** Headline: interquartile mean of the rates of short windows over the counted part. */
  readonly steadyBps: number;
  /** Plain mean over the same part: what really arrived. */
  readonly meanBps: number;
  /** 95 % interval of the headline; null when the counted part is too short to tell. */
  readonly intervalBps: Interval | null;
  /** meanBps / steadyBps; below 0.97 dips took a part worth telling. */
  readonly steadiness: number;
  /** Stretches of the counted part in which less than half of the steady rate arrived. */
  readonly dips: readonly Dip[];
  /** Whether the last seconds agreed and enough was counted; if not, the figure is marked unsettled. */
  readonly settled: boolean;
  /** Why it is not settled; null when it is. Absent in estimates of before. */
  readonly unsettledBy?: UnsettledCause | null | undefined;
  /**
   * Steady rate and plain mean lie more than 10 % apart, so neither is *the* figure: both ends. Null: one figure. Absent
   * in estimates of before.
   */
  readonly rangeBps?: Interval | null | undefined;
  /** What the line gave before it changed to the level of the headline, the first one first. */
  readonly earlier?: readonly EarlierLevel[] | undefined;
  /** Streams that pulled in the counted part. */
  readonly streams: number | null;
  readonly countedFromMs: number;
  readonly countedToMs: number;
  /** Where the direction's first bytes were counted; the ramp lies between this and `countedFromMs`. */
  readonly startedMs: number;
}

export interface RateOptions {
  readonly idleRttMs: number | null;
  readonly rules?: SteadyRules;
  /** When streams were added after the start, and how many there were in the end. Same clock as the series. */
  readonly changesMs?: readonly number[];
  readonly streams?: number | null;
}

const DRAWS = 400;
const LEAST_BLOCK_MS = 600;
const BLOCK_ROUND_TRIPS = 5;
const SEED = 8762;

/** The counted part: from the ramp on; where that leaves nothing of a long series, its last third. */
function countedBins(series: CounterSeries, startedMs: number, options: RateOptions) {
  const { idleRttMs, rules = STEADY_RULES, changesMs = [] } = options;
  const bins = rateBins(series, RATE_BIN_MS, countedFromMs(startedMs, changesMs, idleRttMs, rules));
  if (bins.bps.length >= LEAST_BINS) return { bins, ramped: true };
  const lastMs = series.atMs.at(-1)!;
  return { bins: rateBins(series, RATE_BIN_MS, lastMs - (lastMs - startedMs) / 3), ramped: false };
}

/**
 * Rate of one direction from its receiver's counters, after the ramp. Worked example in docs/measurement.md.
 * Null when nothing arrived or less than half a second is left: then no figure exists.
 */
export function estimateRate(series: CounterSeries | null, options: RateOptions): RateEstimate | null {
  const { idleRttMs, rules = STEADY_RULES, streams = null } = options;
  const startedMs = series?.atMs[0];
  if (series === null || startedMs === undefined) return null;
  const { bins: counted, ramped } = countedBins(series, startedMs, options);
  const figure = figureOf(counted, rules);
  if (figure === null) return null;
  const { bins, earlier, meanBps, perWindow, steadyBps } = figure;
  const blockMs = Math.max(LEAST_BLOCK_MS, BLOCK_ROUND_TRIPS * (idleRttMs ?? 0));
  // A direction that was ended before it had counted enough has not shown that it was steady.
  const isShort = !ramped || (counted.bps.length + 1) * RATE_BIN_MS < leastCountedMs(idleRttMs, rules, meanBps);
  const cause = isShort ? 'too-short' : figure.unsettledBy;
  const apart = areApart(steadyBps, meanBps);
  return {
    steadyBps,
    meanBps,
    // Of the bins and not of the windows, which overlap: neighbours among those know the same bytes.
    intervalBps: blockBootstrapInterval(bins.bps, (drawn) => interquartileMean(movingMeans(drawn, perWindow)), {
      blockLength: Math.round(blockMs / RATE_BIN_MS),
      draws: DRAWS,
      random: seededRandom(SEED),
    }),
    steadiness: meanBps / steadyBps,
    dips: dipsIn(bins, steadyBps),
    settled: cause === null,
    unsettledBy: cause,
    rangeBps: apart ? { low: Math.min(meanBps, steadyBps), high: Math.max(meanBps, steadyBps) } : null,
    earlier,
    streams,
    countedFromMs: bins.atMs[0]!,
    countedToMs: bins.atMs.at(-1)! + RATE_BIN_MS,
    startedMs,
  };
}

/** Whether an estimate is one figure, and not a range. */
export function isOneFigure(rate: RateEstimate): boolean {
  return (rate.rangeBps ?? null) === null;
}
