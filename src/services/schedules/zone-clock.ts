import type { ZoneClock } from '@/core';
import { wallClock } from '../office/wall-clock';

const MINUTE_MS = 60_000;

/** The calendar of an office for its schedules. `timeZone`: IANA name; null: that of this machine. */
export function zoneClock(timeZone: string | null): ZoneClock {
  const { wallAt, instantOf } = wallClock(timeZone);
  return {
    dayAt: (atMs) => {
      const wall = new Date(wallAt(atMs));
      return { year: wall.getUTCFullYear(), month: wall.getUTCMonth() + 1, day: wall.getUTCDate() };
    },
    instantOf: ({ year, month, day }, minute) => instantOf(Date.UTC(year, month - 1, day) + minute * MINUTE_MS),
  };
}

/** When the month of an office's calendar began in which a moment lies. */
export function monthBeganMs(timeZone: string | null, atMs: number): number {
  const { wallAt, instantOf } = wallClock(timeZone);
  const wall = new Date(wallAt(atMs));
  const began = Date.UTC(wall.getUTCFullYear(), wall.getUTCMonth(), 1);
  // Where the clock skips the first midnight, the day begins an hour later.
  return instantOf(began) ?? instantOf(began + 60 * MINUTE_MS) ?? began;
}
