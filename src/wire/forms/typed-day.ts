import { TZDate } from '@date-fns/tz';

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'] as const;

/** The start of a day somewhere. `timeZone`: IANA name; null: that of this machine. */
function startOf(year: number, month: number, day: number, timeZone: string | null): Date {
  return timeZone === null ? new Date(year, month, day) : new TZDate(year, month, day, timeZone);
}

const inZone = (atMs: number, timeZone: string | null): Date =>
  timeZone === null ? new Date(atMs) : new TZDate(atMs, timeZone);

function dayOf(year: number, month: number, day: number, timeZone: string | null): number | null {
  const made = startOf(year, month - 1, day, timeZone);
  // The 31st of a month of 30 days is none.
  return made.getFullYear() === year && made.getMonth() === month - 1 && made.getDate() === day ? made.getTime() : null;
}

/** The start of the day after a time. A day may have 23 hours, or 25. */
export function dayAfter(atMs: number, timeZone: string | null = null): number {
  const at = inZone(atMs, timeZone);
  return startOf(at.getFullYear(), at.getMonth(), at.getDate() + 1, timeZone).getTime();
}

/**
 * A day as people write one: "2026-11-25" (ISO 8601), "25.11.2026", "25.11.", "25 November 2026", "today", "yesterday". Its
 * start, in this machine's time zone or another; null where it is none. Without a year it is the last such day.
 */
export function readDay(typed: string, nowMs = Date.now(), timeZone: string | null = null): number | null {
  const text = typed.trim().toLowerCase();
  const now = inZone(nowMs, timeZone);
  if (text === 'today' || text === 'yesterday') {
    const day = now.getDate() - (text === 'today' ? 0 : 1);
    return startOf(now.getFullYear(), now.getMonth(), day, timeZone).getTime();
  }
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(text);
  if (iso !== null) return dayOf(Number(iso[1]), Number(iso[2]), Number(iso[3]), timeZone);
  const dotted = /^(\d{1,2})\. ?(\d{1,2})\. ?(\d{4})?$/.exec(text);
  if (dotted !== null) {
    const of = (year: number) => dayOf(year, Number(dotted[2]), Number(dotted[1]), timeZone);
    if (dotted[3] !== undefined) return of(Number(dotted[3]));
    const thisYear = of(now.getFullYear());
    return thisYear === null || thisYear > nowMs ? of(now.getFullYear() - 1) : thisYear;
  }
  const named = /^(\d{1,2})\.? ([a-z]{3,9})\.? (\d{4})$/.exec(text);
  const month = named === null ? -1 : MONTHS.findIndex((name) => named[2]!.startsWith(name));
  return month < 0 ? null : dayOf(Number(named![3]), month + 1, Number(named![1]), timeZone);
}
