import { rejoinMs, rampMs, type RunProfile } from '@/core';
import { rateBetween } from './rate-between';
import type { Pull, SeriesLog } from './run-state';

export type Growth =
  | { readonly verdict: 'wait' }
  | { readonly verdict: 'enough'; readonly pull: Pull }
  | { readonly verdict: 'add'; readonly pull: Pull };

/**
 * Whether to add a stream: while the last one brought more than 3 %, up to the most (docs/measurement.md, "Streams").
 * The rate is weighed after the ramp, or after what the last added stream disturbed. `offsetMs`: what to take off a time
 * on the run's clock to get the series' clock.
 */
export function growPull(
  pull: Pull,
  series: SeriesLog | null,
  offsetMs: number,
  idleRttMs: number | null,
  { steady, streams }: RunProfile,
): Growth {
  if (pull.grown || pull.streams >= streams.most) return { verdict: 'enough', pull: { ...pull, grown: true } };
  const first = pull.rateBefore === null;
  const started = series?.atMs[0];
  if (started === undefined) return { verdict: 'wait' };
  const fromMs = first ? started + rampMs(idleRttMs, steady) : pull.sinceMs - offsetMs + rejoinMs(idleRttMs, steady);
  const rate = rateBetween(series, fromMs, fromMs + steady.weighMs);
  if (rate === null) return { verdict: 'wait' };
  const helped = first || rate > (1 + steady.worthwhileGain) * pull.rateBefore;
  if (!helped) return { verdict: 'enough', pull: { ...pull, grown: true } };
  return { verdict: 'add', pull: { ...pull, streams: pull.streams + 1, rateBefore: rate } };
}
