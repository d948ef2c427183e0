import type { Direction } from '../domain/plan';
import { median } from '../stats/percentile';

/** What goes over a line by its router's counters, by the hour of the day: 24 medians each way, Mb/s; null: nobody counted then. */
export type HourLoads = Readonly<Record<Direction, readonly (number | null)[]>>;

/** The load of a line in some hours, Mb/s. */
export interface LoadInHours {
  readonly mbps: number;
  /** What the plan promises. */
  readonly ofMbps: number;
  /** Whether that is enough to be felt: then a sag in these hours may be made here. */
  readonly busy: boolean;
}

/** From this share of the plan on, what others move may be what a run misses. */
const FELT_SHARE = 0.1;

/** The load of a line in some hours of the day; null: nobody counted in them. `promisedBps`: of the plan, that way. */
export function loadInHours(
  loads: readonly (number | null)[],
  hours: readonly number[],
  promisedBps: number,
): LoadInHours | null {
  const mbps = median(hours.flatMap((hour) => loads[hour] ?? []));
  if (mbps === null) return null;
  const ofMbps = promisedBps / 1e6;
  return { mbps, ofMbps, busy: mbps >= FELT_SHARE * ofMbps };
}
