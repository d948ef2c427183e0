import { REPORT_SECTIONS, type ReportOrder, type ReportSectionKey } from '@/services';
import { dayAfter, readDay } from '@/wire';

/** What a report can be about, as it stands in an address; a hunt or a swap by "hunt ID". */
export const ABOUTS = ['this-month', 'last-month', 'last-week', 'days'] as const;

export interface ReportChoice {
  readonly about: string;
  /** As typed; only of days. */
  readonly from: string;
  readonly until: string;
  /** Null: all. */
  readonly sections: readonly ReportSectionKey[] | null;
}

const DAYS_OF_WEEK = 7;

export function readReportChoice(search: URLSearchParams): ReportChoice {
  const sections = search.getAll('section').flatMap((key) => REPORT_SECTIONS.find((each) => each === key) ?? []);
  return {
    about: search.get('about') ?? 'this-month',
    from: (search.get('from') ?? '').slice(0, 40),
    until: (search.get('until') ?? '').slice(0, 40),
    // A form with no tick sends the blank one alone.
    sections: search.has('section') ? sections : null,
  };
}

/** The same as an address. */
export function reportSearch({ about, from, until, sections }: ReportChoice): string {
  const search = new URLSearchParams({ about });
  if (from !== '') search.set('from', from);
  if (until !== '') search.set('until', until);
  if (sections?.length === 0) search.append('section', '');
  for (const key of sections ?? []) search.append('section', key);
  return search.toString();
}

interface Zoned {
  readonly nowMs: number;
  readonly timeZone: string | null;
}

/** The first moment of a month, so many before this one. */
function monthStart({ nowMs, timeZone }: Zoned, back: number): { readonly startMs: number; readonly title: string } {
  const zone = timeZone === null ? {} : { timeZone };
  const parts = new Intl.DateTimeFormat('en-CA', { year: 'numeric', month: '2-digit', ...zone }).formatToParts(nowMs);
  const part = (type: string) => Number(parts.find((each) => each.type === type)!.value);
  const month = new Date(Date.UTC(part('year'), part('month') - 1 - back, 1));
  const startMs = readDay(month.toISOString().slice(0, 10), nowMs, timeZone)!;
  const title = new Intl.DateTimeFormat('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' }).format(month);
  return { startMs, title };
}

/** What is asked for; null with what stands in the way where days cannot be read. */
export function reportOrder(
  siteId: string,
  { about, from, until, sections }: ReportChoice,
  zoned: Zoned,
): { readonly order: ReportOrder | null; readonly fault: string | null } {
  const { nowMs, timeZone } = zoned;
  const frame = { siteId, sections };
  const [, kind, id] = /^(hunt|swap) (.+)$/.exec(about) ?? [];
  if (kind !== undefined && id !== undefined)
    return { order: { ...frame, kind: kind === 'hunt' ? 'hunt' : 'swap', id }, fault: null };
  const span = (fromMs: number, untilMs: number, title: string) => ({
    order: { ...frame, kind: 'span', fromMs, untilMs, title } as const,
    fault: null,
  });
  const endOfToday = dayAfter(nowMs, timeZone);
  if (about === 'days') {
    const [first, last] = [readDay(from, nowMs, timeZone), readDay(until === '' ? from : until, nowMs, timeZone)];
    if (first === null || last === null)
      return { order: null, fault: 'Write both days like 1.11.2026 or 2026-11-01, or “today”.' };
    if (last < first) return { order: null, fault: 'The last day lies before the first. Change one of them.' };
    return span(first, dayAfter(last, timeZone), 'What was measured');
  }
  if (about === 'last-week') {
    let fromMs = readDay('today', nowMs, timeZone)!;
    for (let day = 1; day < DAYS_OF_WEEK; day += 1) fromMs = readDay('yesterday', fromMs + 1, timeZone)!;
    return span(fromMs, endOfToday, 'The last seven days');
  }
  const back = about === 'last-month' ? 1 : 0;
  const { startMs, title } = monthStart(zoned, back);
  return span(startMs, back === 0 ? endOfToday : monthStart(zoned, 0).startMs, title);
}
