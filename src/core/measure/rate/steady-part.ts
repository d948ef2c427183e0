import { mean } from '../../stats/mean';

/** Numbers of docs/measurement.md that decide what is discarded and when a direction knows enough. */
export interface SteadyRules {
  readonly leastRampMs: number;
  readonly mostRampMs: number;
  readonly rampRoundTrips: number;
  /** From this round trip on so many are discarded: there streams that stopped doubling early need long to grow. */
  readonly longPathMs: number;
  readonly longPathRoundTrips: number;
  readonly leastCountedMs: number;
  readonly countedRoundTrips: number;
  /** So much is counted at least, bytes, where that takes no longer than `mostCountedForBytesMs`. */
  readonly countedBytes: number;
  readonly mostCountedForBytesMs: number;
  readonly meanSpanMs: number;
  readonly agreeWithin: number;
  /** After a stream was added: what is discarded again, at least and in round trips, and how long its gain is weighed. */
  readonly leastRejoinMs: number;
  readonly rejoinRoundTrips: number;
  readonly weighMs: number;
  /** A further stream is worth it while the last one brought more than this share. */
  readonly worthwhileGain: number;
}

/** From this round trip on a path is long: TCP needs many of them to fill it, ms. */
export const LONG_PATH_MS = 100;

export const STEADY_RULES: SteadyRules = {
  leastRampMs: 1000,
  mostRampMs: 20_000,
  rampRoundTrips: 25,
  longPathMs: LONG_PATH_MS,
  longPathRoundTrips: 40,
  leastCountedMs: 3000,
  countedRoundTrips: 10,
  countedBytes: 1_500_000,
  mostCountedForBytesMs: 8000,
  meanSpanMs: 1000,
  agreeWithin: 0.01,
  leastRejoinMs: 400,
  rejoinRoundTrips: 10,
  weighMs: 500,
  worthwhileGain: 0.03,
};

/** How much of a direction's start is discarded while TCP still grows: ms, from the idle round trip in ms. */
export function rampMs(idleRttMs: number | null, rules: SteadyRules = STEADY_RULES): number {
  const rttMs = idleRttMs ?? 0;
  const byRoundTrips = (rttMs >= rules.longPathMs ? rules.longPathRoundTrips : rules.rampRoundTrips) * rttMs;
  return Math.min(rules.mostRampMs, Math.max(rules.leastRampMs, byRoundTrips));
}

/** How much is discarded after a stream was added, ms. */
export function rejoinMs(idleRttMs: number | null, rules: SteadyRules = STEADY_RULES): number {
  return Math.min(rules.mostRampMs, Math.max(rules.leastRejoinMs, rules.rejoinRoundTrips * (idleRttMs ?? 0)));
}

/**
 * How much must be counted before a direction may stop early, ms: more with a long round trip, and on a slow line until
 * enough has come that bytes waiting out of order at the edges do not count. `rateBps`: bits per second, as far as known.
 */
export function leastCountedMs(
  idleRttMs: number | null,
  rules: SteadyRules = STEADY_RULES,
  rateBps: number | null = null,
): number {
  const byTime = rules.leastCountedMs + rules.countedRoundTrips * (idleRttMs ?? 0);
  const byBytes = rateBps === null || rateBps <= 0 ? 0 : (rules.countedBytes * 8000) / rateBps;
  return Math.max(byTime, Math.min(byBytes, rules.mostCountedForBytesMs));
}

/**
 * When the counted part begins: after the ramp, and after whatever was disturbed by the last added stream. Times on one
 * clock, ms. `changesMs`: when streams were added after the start.
 */
export function countedFromMs(
  startedMs: number,
  changesMs: readonly number[],
  idleRttMs: number | null,
  rules: SteadyRules = STEADY_RULES,
): number {
  const afterRamp = startedMs + rampMs(idleRttMs, rules);
  const lastChangeMs = changesMs.at(-1);
  return lastChangeMs === undefined ? afterRamp : Math.max(afterRamp, lastChangeMs + rejoinMs(idleRttMs, rules));
}

/** Mean of the last three means (of 1 s each, unless the rules say otherwise); null with too few rates. */
export function lastMeanBps(bps: readonly number[], binMs: number, rules: SteadyRules = STEADY_RULES): number | null {
  const bins = Math.round(rules.meanSpanMs / binMs) * 3;
  return bps.length < bins ? null : mean(bps.slice(-bins));
}

/**
 * Whether the last three means (of 1 s each, unless the rules say otherwise) each lie within 1 % of the one before.
 * `bps`: consecutive rates of `binMs` each. Too few of them, or nothing flowing, is not settled.
 */
export function isSettled(bps: readonly number[], binMs: number, rules: SteadyRules = STEADY_RULES): boolean {
  const perMean = Math.round(rules.meanSpanMs / binMs);
  if (bps.length < perMean * 3) return false;
  const [first, second, third] = [3, 2, 1].map((back) =>
    mean(bps.slice(bps.length - back * perMean, bps.length - (back - 1) * perMean)),
  ) as [number, number, number];
  const agree = (before: number, after: number) => before > 0 && Math.abs(after - before) <= rules.agreeWithin * before;
  return agree(first, second) && agree(second, third);
}
