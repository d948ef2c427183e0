import type { ImportClock } from '@/core';
import { wallClock } from '../office/wall-clock';

const MINUTE_MS = 60_000;

/** Reads clocks on the wall as they go at an office. `timeZone`: IANA name; null: that of this machine. */
export function importClock(timeZone: string | null, nowMs: number): ImportClock {
  const { instantOf } = wallClock(timeZone);
  return {
    nowMs,
    atOf: ({ year, month, day, hour, minute, second, offsetMinutes }) => {
      const onWallMs = Date.UTC(year, month - 1, day, hour, minute) + Math.round(1000 * second);
      return offsetMinutes === null ? instantOf(onWallMs) : onWallMs - offsetMinutes * MINUTE_MS;
    },
  };
}
