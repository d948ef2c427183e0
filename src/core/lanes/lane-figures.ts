import { percentile } from '../stats/percentile';
import type { LaneEcho, LaneFigures } from './lane';

/** What a stretch of requests comes to. Percentiles by linear interpolation, of those that were answered. */
export function laneFigures(echoes: readonly Pick<LaneEcho, 'ms'>[]): LaneFigures {
  const times = echoes.flatMap(({ ms }) => (ms === null ? [] : [ms])).sort((a, b) => a - b);
  const some = times.length > 0;
  return {
    sent: echoes.length,
    answered: times.length,
    minMs: some ? times[0]! : null,
    medianMs: some ? percentile(times, 0.5) : null,
    p95Ms: some ? percentile(times, 0.95) : null,
    maxMs: some ? times.at(-1)! : null,
  };
}
