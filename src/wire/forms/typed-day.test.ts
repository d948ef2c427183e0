import { dayAfter, readDay } from './typed-day';

const NOW = new Date(2026, 10, 25, 17, 30).getTime();
const start = (year: number, month: number, day: number) => new Date(year, month - 1, day).getTime();

describe('a day that was typed', () => {
  it.each([
    ['2026-11-25', start(2026, 11, 25)],
    ['2026-1-5', start(2026, 1, 5)],
    ['25.11.2026', start(2026, 11, 25)],
    [' 5. 1. 2026 ', start(2026, 1, 5)],
    ['25 November 2026', start(2026, 11, 25)],
    ['25. nov 2026', start(2026, 11, 25)],
    ['today', start(2026, 11, 25)],
    ['Yesterday', start(2026, 11, 24)],
    ['29.2.2024', start(2024, 2, 29)],
    ['12.11.', start(2026, 11, 12)],
    ['24. 12.', start(2025, 12, 24)],
  ])('%s begins with its midnight', (typed, wanted) => expect(readDay(typed, NOW)).toBe(wanted));

  it('is yesterday on the first of a month, too', () =>
    expect(readDay('yesterday', start(2026, 3, 1))).toBe(start(2026, 2, 28)));

  it.each([
    '31.2.2026',
    '2026-02-30',
    '29.2.2026',
    '0.1.2026',
    '25.13.2026',
    'tomorrow',
    '11/25/2026',
    '25 brumaire 2026',
    'soon',
    '',
  ])('%s is none', (typed) => expect(readDay(typed, NOW)).toBeNull());

  it('begins where it is, also on days of 23 and 25 hours', () => {
    const [hour, zone] = [3600_000, 'Europe/London'];
    const start = (typed: string) => readDay(typed, NOW, zone)!;
    expect(start('29.3.2026')).toBe(Date.UTC(2026, 2, 29));
    expect(dayAfter(start('29.3.2026'), zone) - start('29.3.2026')).toBe(23 * hour);
    expect(dayAfter(start('25.10.2026'), zone) - start('25.10.2026')).toBe(25 * hour);
    expect(readDay('2026-11-25', NOW, 'Asia/Kathmandu')).toBe(Date.UTC(2026, 10, 24, 18, 15));
    // At noon in Greenwich it is tomorrow already on the other side of the world.
    expect(readDay('today', Date.UTC(2026, 10, 25, 12), 'Pacific/Kiritimati')).toBe(Date.UTC(2026, 10, 25, 10));
  });
});
