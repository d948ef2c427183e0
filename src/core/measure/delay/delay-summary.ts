import { mean } from '../../stats/mean';
import { median, percentile } from '../../stats/percentile';

/** Delay of one part of a run, in ms round trip. Percentiles are type 7. */
export interface DelaySummary {
  readonly count: number;
  readonly minMs: number;
  readonly medianMs: number;
  readonly p95Ms: number;
  readonly maxMs: number;
  /** Mean absolute difference of successive round trips; null with a single probe. */
  readonly jitterMs: number | null;
  /** Packet delay variation (RFC 5481 §4.2): a high percentile less the minimum, and which percentile it is. */
  readonly variationMs: number;
  readonly variationPercentile: 99 | 95;
}

/** With fewer probes than this, the 99th percentile is one or two packets: the 95th is taken and named. */
const PROBES_FOR_P99 = 200;

/**
 * Summary of round trips in the order in which they were sent. Null for no echoes: not measured.
 * Jitter is the plain mean of |difference| of successive round trips, since the timing is round-trip (RFC 3550 smooths
 * one-way timing). Example: [10, 12, 11] → jitter (2 + 1) / 2 = 1.5 ms, variation p95 − min = 11.9 − 10 = 1.9 ms.
 */
export function summarizeDelay(rttMs: readonly number[]): DelaySummary | null {
  const medianMs = median(rttMs);
  if (medianMs === null) return null;
  const minMs = rttMs.reduce((least, rtt) => Math.min(least, rtt), Infinity);
  const variationPercentile = rttMs.length < PROBES_FOR_P99 ? 95 : 99;
  return {
    count: rttMs.length,
    minMs,
    medianMs,
    p95Ms: percentile(rttMs, 0.95)!,
    maxMs: rttMs.reduce((most, rtt) => Math.max(most, rtt), -Infinity),
    jitterMs: mean(rttMs.slice(1).map((rtt, index) => Math.abs(rtt - rttMs[index]!))),
    variationMs: percentile(rttMs, variationPercentile / 100)! - minMs,
    variationPercentile,
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

/**
 * Smoothed interarrival jitter of RFC 3550 §6.4.1 from successive one-way transit times in ms (any constant offset
 * cancels): J += (|D| − J) / 16. Null with fewer than two packets. Example: [5, 7, 5] → 2/16, then 0.125 + 1.875/16 = 0.242.
 */
export function interarrivalJitterMs(transitMs: readonly number[]): number | null {
  if (transitMs.length < 2) return null;
  let jitter = 0;
  for (let index = 1; index < transitMs.length; index += 1) {
    jitter += (Math.abs(transitMs[index]! - transitMs[index - 1]!) - jitter) / 16;
  }
  return jitter;
}
