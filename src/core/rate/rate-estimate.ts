import { blockBootstrapInterval, type Interval } from '../stats/block-bootstrap';
import { interquartileMean, mean } from '../stats/mean';
import { seededRandom } from '../stats/seeded-random';
import type { CounterSeries } from './counter-series';
import { dipsIn, type Dip } from './dips';
import { rateBins } from './rate-bins';
import { countedFromMs, isSettled, lastMeanBps, leastCountedMs, STEADY_RULES, type SteadyRules } from './steady-part';

/** What one direction carried. Rates in bits per second above TCP, times on the clock of the counter series. */
export interface RateEstimate {
  /** Headline: interquartile mean of 100 ms rates over the counted part. */
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
const LEAST_BINS = 5;
/** A figure that is further than this from what the line settled at is not the line's. */
const SETTLED_WITHIN = 0.03;
const DRAWS = 400;
const LEAST_BLOCK_MS = 300;
const BLOCK_ROUND_TRIPS = 5;
const SEED = 8762;

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
  const steadyBps = interquartileMean(bins.bps)!;
  const meanBps = mean(bins.bps)!;
  if (meanBps <= 0 || steadyBps <= 0) return null;
  const lastBps = lastMeanBps(bins.bps, RATE_BIN_MS, rules);
  const blockMs = Math.max(LEAST_BLOCK_MS, BLOCK_ROUND_TRIPS * (idleRttMs ?? 0));
  return {
    steadyBps,
    meanBps,
    intervalBps: blockBootstrapInterval(bins.bps, interquartileMean, {
      blockLength: Math.round(blockMs / RATE_BIN_MS),
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
