import { blockBootstrapInterval, type Interval } from '../stats/block-bootstrap';
import { interquartileMean, mean, movingMeans } from '../stats/mean';
import { seededRandom } from '../stats/seeded-random';
import type { CounterSeries } from './counter-series';
import { dipsIn, type Dip } from './dips';
import { rateBins } from './rate-bins';
import { countedFromMs, isSettled, lastMeanBps, leastCountedMs, STEADY_RULES, type SteadyRules } from './steady-part';

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

export const RATE_BIN_MS = 100;
/** A window holds at least so many full packets: then one more or less at its edges is below 0.4 % of it. */
const WINDOW_BYTES = 256 * 1448;
const LONGEST_WINDOW_BINS = 10;
const LEAST_BINS = 5;
/** A figure that is further than this from what the line settled at is not the line's. */
const SETTLED_WITHIN = 0.03;
const DRAWS = 400;
const LEAST_BLOCK_MS = 300;
const BLOCK_ROUND_TRIPS = 5;
const SEED = 8762;

/** How many bins make a window at this rate: one on lines of 30 Mb/s and more, up to a second on slow ones. */
function windowBins(rateBps: number, bins: number): number {
  const wanted = Math.ceil((WINDOW_BYTES * 8000) / rateBps / RATE_BIN_MS);
  // Three windows side by side at least: fewer would leave nothing to leave out.
  return Math.max(1, Math.min(wanted, LONGEST_WINDOW_BINS, Math.floor(bins / 3)));
}

/**
 * Rate of one direction from its receiver's counters, after the ramp. Worked example in docs/measurement.md.
 * Null when nothing arrived or less than half a second is left after the ramp: then no figure exists.
 */
export function estimateRate(series: CounterSeries | null, options: RateOptions): RateEstimate | null {
  const { idleRttMs, rules = STEADY_RULES, changesMs = [], streams = null } = options;
  const startedMs = series?.atMs[0];
  if (series === null || startedMs === undefined) return null;
  const bins = rateBins(series, RATE_BIN_MS, countedFromMs(startedMs, changesMs, idleRttMs, rules));
  if (bins.bps.length < LEAST_BINS) return null;
  const meanBps = mean(bins.bps)!;
  if (meanBps <= 0) return null;
  const perWindow = windowBins(meanBps, bins.bps.length);
  const windows = movingMeans(bins.bps, perWindow);
  const steadyBps = interquartileMean(windows)!;
  if (steadyBps <= 0) return null;
  const lastBps = lastMeanBps(bins.bps, RATE_BIN_MS, rules);
  const blockMs = Math.max(LEAST_BLOCK_MS, BLOCK_ROUND_TRIPS * (idleRttMs ?? 0));
  return {
    steadyBps,
    meanBps,
    intervalBps: blockBootstrapInterval(windows, interquartileMean, {
      blockLength: Math.max(perWindow, Math.round(blockMs / RATE_BIN_MS)),
      draws: DRAWS,
      random: seededRandom(SEED),
    }),
    steadiness: meanBps / steadyBps,
    dips: dipsIn(bins, steadyBps),
    settled:
      isSettled(bins.bps, RATE_BIN_MS, rules) &&
      lastBps !== null &&
      Math.abs(lastBps - steadyBps) <= SETTLED_WITHIN * steadyBps &&
      // More arrived than the steady rate tells: the line was faster before, and changed.
      meanBps <= (1 + SETTLED_WITHIN) * steadyBps &&
      // A direction that was ended before it had counted enough has not shown that it was steady.
      (bins.bps.length + 1) * RATE_BIN_MS >= leastCountedMs(idleRttMs, rules),
    streams,
    countedFromMs: bins.atMs[0]!,
    countedToMs: bins.atMs.at(-1)! + RATE_BIN_MS,
    startedMs,
  };
}
