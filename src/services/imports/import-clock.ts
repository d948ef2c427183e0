import { TZDate } from '@date-fns/tz';
import type { ImportClock, WallMoment } from '@/core';

const HOUR_MS = 3600_000;

/**
 * Reads clocks on the wall as they go at an office. An hour that daylight saving leaves out is none; of one that comes twice
 * the first is meant. `timeZone`: IANA name; null: that of this machine.
 */
export function importClock(timeZone: string | null, nowMs: number): ImportClock {
  const made = ({ year, month, day, hour, minute, second }: WallMoment): Date => {
    const [whole, ms] = [Math.floor(second), Math.round((second % 1) * 1000)];
    return timeZone === null
      ? new Date(year, month - 1, day, hour, minute, whole, ms)
      : new TZDate(year, month - 1, day, hour, minute, whole, ms, timeZone);
  };
  const shows = ({ hour, minute }: WallMoment, atMs: number) => {
    const at = timeZone === null ? new Date(atMs) : new TZDate(atMs, timeZone);
    return at.getHours() === hour && at.getMinutes() === minute;
  };
  return {
    nowMs,
    atOf: (wall) => {
      const { year, month, day, hour, minute, second, offsetMinutes } = wall;
      if (offsetMinutes !== null)
        return Date.UTC(year, month - 1, day, hour, minute - offsetMinutes, 0) + Math.round(1000 * second);
      const atMs = made(wall).getTime();
      // Clocks are put back by an hour, in one place by half of one.
      return [atMs - HOUR_MS, atMs - HOUR_MS / 2, atMs].find((each) => shows(wall, each)) ?? null;
    },
  };
}
