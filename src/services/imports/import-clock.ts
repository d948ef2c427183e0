import { TZDate } from '@date-fns/tz';
import type { ImportClock } from '@/core';

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

/**
 * Reads clocks on the wall as they go at an office. An hour that daylight saving leaves out is none; of one that comes twice
 * the first is meant. `timeZone`: IANA name; null: that of this machine.
 */
export function importClock(timeZone: string | null, nowMs: number): ImportClock {
  const offsetAt = offsetsIn(timeZone);
  return {
    nowMs,
    atOf: ({ year, month, day, hour, minute, second, offsetMinutes }) => {
      const onWallMs = Date.UTC(year, month - 1, day, hour, minute) + Math.round(1000 * second);
      if (offsetMinutes !== null) return onWallMs - offsetMinutes * MINUTE_MS;
      // As clocks went the day before, and as they go the day after.
      const offsets = [offsetAt(onWallMs - DAY_MS), offsetAt(onWallMs + DAY_MS)];
      const times = offsets
        .map((offset) => onWallMs - offset * MINUTE_MS)
        .filter((atMs, place) => offsetAt(atMs) === offsets[place]);
      return times.length === 0 ? null : Math.min(...times);
    },
  };
}
