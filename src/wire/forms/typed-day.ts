const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'] as const;

function dayOf(year: number, month: number, day: number): Date | null {
  const made = new Date(year, month - 1, day);
  // The 31st of a month of 30 days is none.
  return made.getFullYear() === year && made.getMonth() === month - 1 && made.getDate() === day ? made : null;
}

/**
 * A day as people write one: "2026-11-25" (ISO 8601), "25.11.2026", "25 November 2026", "today", "yesterday". Its start in
 * this machine's time zone; null where it is none.
 */
export function readDay(typed: string, nowMs = Date.now()): number | null {
  const text = typed.trim().toLowerCase();
  const now = new Date(nowMs);
  if (text === 'today' || text === 'yesterday')
    return new Date(now.getFullYear(), now.getMonth(), now.getDate() - (text === 'today' ? 0 : 1)).getTime();
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(text);
  if (iso !== null) return dayOf(Number(iso[1]), Number(iso[2]), Number(iso[3]))?.getTime() ?? null;
  const dotted = /^(\d{1,2})\. ?(\d{1,2})\. ?(\d{4})$/.exec(text);
  if (dotted !== null) return dayOf(Number(dotted[3]), Number(dotted[2]), Number(dotted[1]))?.getTime() ?? null;
  const named = /^(\d{1,2})\.? ([a-z]{3,9})\.? (\d{4})$/.exec(text);
  const month = named === null ? -1 : MONTHS.findIndex((name) => named[2]!.startsWith(name));
  return month < 0 ? null : (dayOf(Number(named![3]), month + 1, Number(named![1]))?.getTime() ?? null);
}
