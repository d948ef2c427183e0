import { readReportChoice, reportOrder, reportSearch } from './read-order';

const at = (iso: string, timeZone: string | null = 'Europe/Berlin') => ({ nowMs: Date.parse(iso), timeZone });
const ordered = (search: string, zoned = at('2026-11-26T20:00:00Z')) =>
  reportOrder('office', readReportChoice(new URLSearchParams(search)), zoned);
const spanOf = (search: string, zoned?: ReturnType<typeof at>) => {
  const { order } = ordered(search, zoned);
  if (order?.kind !== 'span') throw new Error('no span');
  return [order.title, new Date(order.fromMs).toISOString(), new Date(order.untilMs).toISOString()];
};

describe('what a report is about, as its address says', () => {
  it('is this month unless it says otherwise, by the calendar of the office', () => {
    expect(spanOf('')).toEqual(['November 2026', '2026-10-31T23:00:00.000Z', '2026-11-26T23:00:00.000Z']);
    // There the next month has begun.
    expect(spanOf('', at('2026-11-30T23:30:00Z'))).toEqual([
      ...['December 2026', '2026-11-30T23:00:00.000Z', '2026-12-01T23:00:00.000Z'],
    ]);
    expect(spanOf('about=last-month', at('2027-01-05T10:00:00Z'))).toEqual([
      ...['December 2026', '2026-11-30T23:00:00.000Z', '2026-12-31T23:00:00.000Z'],
    ]);
  });

  it('is seven days, also where one of them has 25 hours', () => {
    expect(spanOf('about=last-week', at('2026-10-27T10:00:00Z'))).toEqual([
      ...['The last seven days', '2026-10-20T22:00:00.000Z', '2026-10-27T23:00:00.000Z'],
    ]);
  });

  it('is days that somebody names, both of them included', () => {
    expect(spanOf('about=days&from=1.11.2026&until=2026-11-14').slice(1)).toEqual([
      ...['2026-10-31T23:00:00.000Z', '2026-11-14T23:00:00.000Z'],
    ]);
    expect(spanOf('about=days&from=today').slice(1)).toEqual(['2026-11-25T23:00:00.000Z', '2026-11-26T23:00:00.000Z']);
    expect(ordered('about=days&from=soon')).toMatchObject({
      order: null,
      fault: expect.stringContaining('1.11.2026') as string,
    });
    expect(ordered('about=days&from=14.11.2026&until=1.11.2026').fault).toContain('before the first');
  });

  it('is a hunt or a swap by its id', () => {
    expect(ordered('about=hunt+abc').order).toMatchObject({ kind: 'hunt', id: 'abc' });
    expect(ordered('about=swap+a%20b').order).toMatchObject({ kind: 'swap', id: 'a b' });
  });

  it('keeps which sections were chosen, none of them too', () => {
    const sectionsOf = (search: string) => readReportChoice(new URLSearchParams(search)).sections;
    expect(sectionsOf('')).toBeNull();
    expect(sectionsOf('section=&section=plan&section=nonsense')).toEqual(['plan']);
    expect(sectionsOf('section=')).toEqual([]);
    for (const search of ['', 'section=', 'section=plan&section=cases', 'about=days&from=1.11.2026&until=today']) {
      const choice = readReportChoice(new URLSearchParams(search));
      expect(readReportChoice(new URLSearchParams(reportSearch(choice)))).toEqual(choice);
    }
  });
});
