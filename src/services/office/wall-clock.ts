import { TZDate } from '@date-fns/tz';

const MINUTE_MS = 60_000;
const DAY_MS = 24 * 60 * MINUTE_MS;

/** Minutes east of UTC at a moment, somewhere. Asked once for each day in which clocks go through. */
function offsetsIn(timeZone: string | null): (atMs: number) => number {
  const read = (atMs: number) => -(timeZone === null ? new Date(atMs) : new TZDate(atMs, timeZone)).getTimezoneOffset();
  const known = new Map<number, number>();
  const at = (atMs: number) => {
    const before = known.get(atMs);
    if (before !== undefined) return before;
    const offset = read(atMs);
    known.set(atMs, offset);
    return offset;
  };
  return (atMs) => {
    const day = Math.floor(atMs / DAY_MS) * DAY_MS;
    return at(day) === at(day + DAY_MS) ? at(day) : read(atMs);
  };
}

/** A clock on the wall of an office. */
export interface WallClock {
  /** What it shows at an instant, as if that were UTC, ms. */
  readonly wallAt: (atMs: number) => number;
  /**
   * The instant at which it shows a time. An hour that daylight saving leaves out is none: null; of one that comes twice the
   * first is meant.
   */
  readonly instantOf: (onWallMs: number) => number | null;
}

/** `timeZone`: IANA name; null: that of this machine. */
export function wallClock(timeZone: string | null): WallClock {
  const offsetAt = offsetsIn(timeZone);
  return {
    wallAt: (atMs) => atMs + offsetAt(atMs) * MINUTE_MS,
    instantOf: (onWallMs) => {
      // As clocks went the day before, and as they go the day after.
      const offsets = [offsetAt(onWallMs - DAY_MS), offsetAt(onWallMs + DAY_MS)];
      const times = offsets
        .map((offset) => onWallMs - offset * MINUTE_MS)
        .filter((atMs, place) => offsetAt(atMs) === offsets[place]);
      return times.length === 0 ? null : Math.min(...times);
    },
  };
}
