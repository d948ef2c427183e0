import { calendarTicks, daysOf } from './time-axis';

const ZONE = 'Europe/Dublin';
const at = (iso: string) => Date.parse(iso);
const labels = (from: string, to: string, most = 12) =>
  calendarTicks(at(from), at(to), ZONE, most).map(({ label }) => label);

describe('ticks of the calendar', () => {
  it('are hours of the office, whatever the clock of the browser says', () => {
    expect(labels('2026-07-01T08:10:00Z', '2026-07-01T12:10:00Z')).toEqual(['10:00', '11:00', '12:00', '13:00']);
  });

  it('name the day at midnight', () => {
    expect(labels('2026-11-24T20:00:00Z', '2026-11-25T08:00:00Z', 6)).toEqual(['21:00', '25 Nov', '03:00', '06:00']);
  });

  it('are days, weeks from Monday on, months and years as the span grows', () => {
    expect(labels('2026-11-23T01:00:00Z', '2026-11-26T01:00:00Z', 4)).toEqual([
      'Tue 24 Nov',
      'Wed 25 Nov',
      'Thu 26 Nov',
    ]);
    expect(labels('2026-11-01T00:00:00Z', '2026-11-30T00:00:00Z', 6)).toEqual([
      '2 Nov',
      '9 Nov',
      '16 Nov',
      '23 Nov',
      '30 Nov',
    ]);
    expect(labels('2026-10-15T00:00:00Z', '2027-02-15T00:00:00Z', 6)).toEqual(['Nov', 'Dec', '2027', 'Feb']);
    expect(labels('2020-05-01T00:00:00Z', '2026-05-01T00:00:00Z', 7)).toEqual([
      '2021',
      '2022',
      '2023',
      '2024',
      '2025',
      '2026',
    ]);
  });

  it('stay on the clock when it is put back and put forward', () => {
    // 25 October 2026 has 25 hours in Dublin, 29 March has 23.
    expect(labels('2026-10-24T23:00:00Z', '2026-10-26T00:00:00Z', 9)).toEqual([
      '25 Oct',
      '03:00',
      '06:00',
      '09:00',
      '12:00',
      '15:00',
      '18:00',
      '21:00',
      '26 Oct',
    ]);
    expect(labels('2026-03-29T00:00:00Z', '2026-03-29T23:00:00Z', 9)).toEqual([
      '29 Mar',
      '03:00',
      '06:00',
      '09:00',
      '12:00',
      '15:00',
      '18:00',
      '21:00',
      '30 Mar',
    ]);
  });

  it('are at most so many, for any span', () => {
    for (const hours of [1, 5, 30, 200, 900, 5000, 20_000, 400_000])
      expect(calendarTicks(0, hours * 3600_000, ZONE, 8).length).toBeLessThanOrEqual(9);
  });
});

describe('the day of a moment', () => {
  it('begins at midnight of the office', () => {
    const [first, second, third] = daysOf(
      ['2026-10-24T22:59:00Z', '2026-10-24T23:00:00Z', '2026-10-25T23:59:00Z'].map(at),
      ZONE,
    );
    expect([first, second, third]).toEqual([
      at('2026-10-23T23:00:00Z'),
      at('2026-10-24T23:00:00Z'),
      at('2026-10-24T23:00:00Z'),
    ]);
  });
});
