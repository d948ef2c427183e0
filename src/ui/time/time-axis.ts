import { TZDate } from '@date-fns/tz';

/** A step of the calendar between two ticks. */
interface Step {
  readonly unit: 'minute' | 'hour' | 'day' | 'month' | 'year';
  readonly by: number;
  /** Roughly, ms: steps are chosen by it. */
  readonly ms: number;
}

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;
const STEPS: readonly Step[] = [
  { unit: 'minute', by: 1, ms: MINUTE_MS },
  { unit: 'minute', by: 5, ms: 5 * MINUTE_MS },
  { unit: 'minute', by: 15, ms: 15 * MINUTE_MS },
  { unit: 'hour', by: 1, ms: HOUR_MS },
  { unit: 'hour', by: 3, ms: 3 * HOUR_MS },
  { unit: 'hour', by: 6, ms: 6 * HOUR_MS },
  { unit: 'day', by: 1, ms: DAY_MS },
  { unit: 'day', by: 2, ms: 2 * DAY_MS },
  { unit: 'day', by: 7, ms: 7 * DAY_MS },
  { unit: 'month', by: 1, ms: 30 * DAY_MS },
  { unit: 'month', by: 3, ms: 91 * DAY_MS },
  { unit: 'year', by: 1, ms: 365 * DAY_MS },
];
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'] as const;
const DAYS = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'] as const;

export interface Tick {
  readonly atMs: number;
  readonly label: string;
}

function firstBefore({ unit, by }: Step, at: TZDate, timeZone: string): TZDate {
  const [year, month, day, hour] = [at.getFullYear(), at.getMonth(), at.getDate(), at.getHours()];
  if (unit === 'year') return new TZDate(year, 0, 1, timeZone);
  if (unit === 'month') return new TZDate(year, month - (month % by), 1, timeZone);
  // Weeks begin on Monday.
  if (unit === 'day') return new TZDate(year, month, by === 7 ? day - ((at.getDay() + 6) % 7) : day, timeZone);
  if (unit === 'minute') {
    // Zones lie whole quarters of an hour apart.
    const stepMs = by * MINUTE_MS;
    return new TZDate(Math.floor(at.getTime() / stepMs) * stepMs, timeZone);
  }
  return new TZDate(year, month, day, hour - (hour % by), timeZone);
}

/** The next one by the calendar: a day may have 23 hours, or 25. Never the same moment again. */
function after({ unit, by, ms }: Step, at: TZDate, timeZone: string): TZDate {
  const [year, month, day] = [at.getFullYear(), at.getMonth(), at.getDate()];
  if (unit === 'year') return new TZDate(year + by, 0, 1, timeZone);
  if (unit === 'month') return new TZDate(year, month + by, 1, timeZone);
  if (unit === 'day') return new TZDate(year, month, day + by, timeZone);
  if (unit === 'minute') return new TZDate(at.getTime() + ms, timeZone);
  // One hour by its length, for an hour may come twice; more by the clock, which then stays on its round hours.
  return by === 1
    ? new TZDate(at.getTime() + ms, timeZone)
    : new TZDate(year, month, day, at.getHours() + by, timeZone);
}

function labelOf({ unit, by }: Step, at: TZDate): string {
  const month = MONTHS[at.getMonth()]!;
  if (unit === 'year' || (unit === 'month' && at.getMonth() === 0)) return String(at.getFullYear());
  if (unit === 'month') return month;
  if (unit === 'minute' || (unit === 'hour' && at.getHours() !== 0))
    return `${String(at.getHours()).padStart(2, '0')}:${String(at.getMinutes()).padStart(2, '0')}`;
  return by === 1 && unit === 'day' ? `${DAYS[at.getDay()]} ${at.getDate()} ${month}` : `${at.getDate()} ${month}`;
}

/** Ticks at turns of the calendar of a place, at most so many. `timeZone`: IANA name. */
export function calendarTicks(fromMs: number, toMs: number, timeZone: string, most: number): Tick[] {
  const span = Math.max(1, toMs - fromMs);
  const step = STEPS.find(({ ms }) => span / ms <= most) ?? {
    unit: 'year',
    by: Math.ceil(span / (most * 365 * DAY_MS)),
    ms: span,
  };
  const ticks: Tick[] = [];
  for (
    let at = firstBefore(step, new TZDate(fromMs, timeZone), timeZone);
    at.getTime() <= toMs;
    at = after(step, at, timeZone)
  )
    if (at.getTime() >= fromMs) ticks.push({ atMs: at.getTime(), label: labelOf(step, at) });
  return ticks;
}

/** The start of the day of each moment, in the order of time; a day that was seen once is known. */
export function daysOf(moments: readonly number[], timeZone: string): number[] {
  let [start, end] = [NaN, NaN];
  return moments.map((atMs) => {
    if (!(atMs >= start && atMs < end)) {
      const at = new TZDate(atMs, timeZone);
      start = new TZDate(at.getFullYear(), at.getMonth(), at.getDate(), timeZone).getTime();
      end = new TZDate(at.getFullYear(), at.getMonth(), at.getDate() + 1, timeZone).getTime();
    }
    return start;
  });
}
