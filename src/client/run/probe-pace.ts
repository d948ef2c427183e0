import { rampMs, type SteadyRules } from '@/core';
import { rateBetween } from './rate-between';
import type { SeriesLog } from './run-state';

/** UDP probes take no more than this share of a line that is full. */
const MOST_SHARE = 0.001;
/** What a probe takes of the line, bytes: the longer of an authenticated STAMP packet and a channel message, with headers. */
const PROBE_BYTES = 154;
/** Fewer would say nothing about loss. */
const LEAST_PER_SECOND = 5;

/** How many UDP probes a second a line of this rate bears: they must not take from the figure that they stand beside. */
export function probesPerSecond(rateBps: number): number {
  return Math.max(LEAST_PER_SECOND, Math.floor((rateBps * MOST_SHARE) / (PROBE_BYTES * 8)));
}

/**
 * The pace for the rest of a phase, by the slowest of its series just after the ramp; null while that is not known.
 */
export function paceUnderLoad(
  series: readonly (SeriesLog | null)[],
  idleRttMs: number | null,
  steady: SteadyRules,
): number | null {
  const rates = series.map((each) => {
    const started = each?.atMs[0];
    if (started === undefined) return null;
    const fromMs = started + rampMs(idleRttMs, steady);
    return rateBetween(each, fromMs - steady.weighMs, fromMs);
  });
  return rates.includes(null) ? null : probesPerSecond(Math.min(...(rates as number[])));
}
