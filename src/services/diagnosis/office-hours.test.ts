import { hourAt, hoursIn } from './office-hours';

const at = (iso: string) => Date.parse(iso);

describe('the hour of the day at an office', () => {
  it('is that of its own zone, in summer and in winter', () => {
    expect(hourAt(at('2026-01-15T18:30:00Z'), 'Europe/Dublin')).toBe(18);
    expect(hourAt(at('2026-07-15T18:30:00Z'), 'Europe/Dublin')).toBe(19);
    expect(hourAt(at('2026-01-15T18:30:00Z'), 'Asia/Kathmandu')).toBe(0);
    expect(hourAt(at('2026-01-15T18:14:00Z'), 'Asia/Kathmandu')).toBe(23);
  });

  it('is that of the machine where no zone was named', () => {
    const atMs = at('2026-01-15T18:30:00Z');
    expect(hourAt(atMs, null)).toBe(new Date(atMs).getHours());
  });

  it('is the same read once or many times, over the changes of the clock', () => {
    const hourOf = hoursIn('Europe/Dublin');
    for (let atMs = at('2026-10-24T00:00:00Z'); atMs < at('2026-10-26T00:00:00Z'); atMs += 7 * 60_000)
      for (let twice = 0; twice < 2; twice += 1) expect(hourOf(atMs)).toBe(hourAt(atMs, 'Europe/Dublin'));
  });
});
