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

const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** Reads moments in an office's time zone; a quarter of an hour that was read once is known. */
export function calendarIn(timeZone: string | null): (atMs: number) => CalendarMoment {
  const format = new Intl.DateTimeFormat('en-GB', {
    ...({ year: 'numeric', month: '2-digit', day: '2-digit', weekday: 'short', hour: '2-digit' } as const),
    ...{ hourCycle: 'h23', timeZone: timeZone ?? undefined },
  });
  const known = new Map<number, CalendarMoment>();
  return (atMs) => {
    const quarter = Math.floor(atMs / (HOUR_MS / 4));
    const before = known.get(quarter);
    if (before !== undefined) return before;
    const part = Object.fromEntries(format.formatToParts(atMs).map(({ type, value }) => [type, value]));
    const moment = {
      day: `${part['year']}-${part['month']}-${part['day']}`,
      weekday: WEEKDAYS.indexOf(part['weekday']!),
      hour: Number(part['hour']),
    };
    known.set(quarter, moment);
    return moment;
  };
}
