import { wallClock } from '../office/wall-clock';

/** Readers of the clock by zone: making one costs more than reading it ten thousand times. */
const readers = new Map<string, Intl.DateTimeFormat>();
const HOUR_MS = 3600_000;

/** Hour of the day at an office, 0 to 23. `timeZone`: IANA name; null: that of this machine. */
export function hourAt(atMs: number, timeZone: string | null): number {
  if (timeZone === null) return new Date(atMs).getHours();
  let reader = readers.get(timeZone);
  if (reader === undefined) {
    reader = new Intl.DateTimeFormat('en-GB', { hour: 'numeric', hourCycle: 'h23', timeZone });
    readers.set(timeZone, reader);
  }
  return Number(reader.format(atMs));
}

/** The same for many times: an hour that was read once is known. */
export function hoursIn(timeZone: string | null): (atMs: number) => number {
  const known = new Map<number, number>();
  return (atMs) => {
    // Zones differ by quarters of an hour at least.
    const quarter = Math.floor(atMs / (HOUR_MS / 4));
    const before = known.get(quarter);
    if (before !== undefined) return before;
    const hour = hourAt(atMs, timeZone);
    known.set(quarter, hour);
    return hour;
  };
}

/** A moment as the calendar of an office has it: the day as YYYY-MM-DD, weekday from 0 (Monday) to 6, hour from 0 to 23. */
export interface CalendarMoment {
  readonly day: string;
  readonly weekday: number;
  readonly hour: number;
}

const two = (number: number) => String(number).padStart(2, '0');

/** Reads moments in an office's time zone; a quarter of an hour that was read once is known. */
export function calendarIn(timeZone: string | null): (atMs: number) => CalendarMoment {
  const { wallAt } = wallClock(timeZone);
  const known = new Map<number, CalendarMoment>();
  return (atMs) => {
    const quarter = Math.floor(atMs / (HOUR_MS / 4));
    const before = known.get(quarter);
    if (before !== undefined) return before;
    const wall = new Date(wallAt(atMs));
    const moment = {
      day: `${wall.getUTCFullYear()}-${two(wall.getUTCMonth() + 1)}-${two(wall.getUTCDate())}`,
      // Sunday is 0 there.
      weekday: (wall.getUTCDay() + 6) % 7,
      hour: wall.getUTCHours(),
    };
    known.set(quarter, moment);
    return moment;
  };
}
