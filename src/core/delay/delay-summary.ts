import { mean } from '../stats/mean';
import { median, percentile } from '../stats/percentile';

/** Delay of one part of a run, in ms round trip. Percentiles are type 7. */
export interface DelaySummary {
  readonly count: number;
  readonly minMs: number;
  readonly medianMs: number;
  readonly p95Ms: number;
  readonly maxMs: number;
  /** Mean absolute difference of successive round trips; null with a single probe. */
  readonly jitterMs: number | null;
}

/**
 * Summary of round trips in the order in which they were sent. Null for no echoes: not measured.
 * Jitter is the plain mean of |difference| of successive round trips, since the timing is round-trip (RFC 3550 smooths
 * one-way timing). Example: [10, 12, 11] → jitter (2 + 1) / 2 = 1.5 ms.
 */
export function summarizeDelay(rttMs: readonly number[]): DelaySummary | null {
  const medianMs = median(rttMs);
  if (medianMs === null) return null;
  return {
    count: rttMs.length,
    minMs: Math.min(...rttMs),
    medianMs,
    p95Ms: percentile(rttMs, 0.95)!,
    maxMs: Math.max(...rttMs),
    jitterMs: mean(rttMs.slice(1).map((rtt, index) => Math.abs(rtt - rttMs[index]!))),
  };
}

/** Median under load less the idle median, in ms: what the load adds. Null unless both were measured. */
export function addedDelayMs(idle: DelaySummary | null, loaded: DelaySummary | null): number | null {
  return idle === null || loaded === null ? null : loaded.medianMs - idle.medianMs;
}

/** Round trips that fit in a minute while the line is working: 60 000 / median under load. */
export function workingRoundTripsPerMinute(loaded: DelaySummary | null): number | null {
  return loaded === null || loaded.medianMs <= 0 ? null : 60_000 / loaded.medianMs;
}
