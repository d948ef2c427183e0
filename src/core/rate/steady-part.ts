import { mean } from '../stats/mean';

/** Numbers of docs/measurement.md that decide what is discarded and when a direction knows enough. */
export const STEADY_RULES = {
  leastRampMs: 1000,
  mostRampMs: 4000,
  rampRoundTrips: 25,
  leastCountedMs: 3000,
  countedRoundTrips: 10,
  meanSpanMs: 1000,
  agreeWithin: 0.01,
} as const;

/** How much of a direction's start is discarded while TCP still grows: ms, from the idle round trip in ms. */
export function rampMs(idleRttMs: number | null): number {
  const byRoundTrips = STEADY_RULES.rampRoundTrips * (idleRttMs ?? 0);
  return Math.min(STEADY_RULES.mostRampMs, Math.max(STEADY_RULES.leastRampMs, byRoundTrips));
}

/** How much must be counted after the ramp before a direction may stop early: ms. */
export function leastCountedMs(idleRttMs: number | null): number {
  return STEADY_RULES.leastCountedMs + STEADY_RULES.countedRoundTrips * (idleRttMs ?? 0);
}

/**
 * Whether the last three one-second means each lie within 1 % of the one before.
 * `bps`: consecutive rates of `binMs` each. Too few of them, or nothing flowing, is not settled.
 */
export function isSettled(bps: readonly number[], binMs: number): boolean {
  const perMean = Math.round(STEADY_RULES.meanSpanMs / binMs);
  if (bps.length < perMean * 3) return false;
  const [first, second, third] = [3, 2, 1].map((back) =>
    mean(bps.slice(bps.length - back * perMean, bps.length - (back - 1) * perMean)),
  ) as [number, number, number];
  const agree = (before: number, after: number) =>
    before > 0 && Math.abs(after - before) <= STEADY_RULES.agreeWithin * before;
  return agree(first, second) && agree(second, third);
}
