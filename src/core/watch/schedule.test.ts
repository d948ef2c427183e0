import fc from 'fast-check';
import {
  dueTimes,
  minutesOfDay,
  runsAWeek,
  SCHEDULED_PROFILES,
  spreadMs,
  WEEK,
  type Schedule,
  type TimesOfDay,
  type ZoneClock,
} from './schedule';
import { readSchedule, scheduleWords } from './schedule-words';
import { PEER_REACHES } from '../domain/reach';

/** A zone that is an hour ahead of Greenwich all year. */
const AHEAD: ZoneClock = {
  dayAt: (atMs) => {
    const date = new Date(atMs + 3600_000);
    return { year: date.getUTCFullYear(), month: date.getUTCMonth() + 1, day: date.getUTCDate() };
  },
  instantOf: ({ year, month, day }, minute) => Date.UTC(year, month - 1, day, 0, minute) - 3600_000,
};
const read = (sentence: string): Schedule => {
  const found = readSchedule(sentence);
  if (!found.ok) throw new Error(JSON.stringify(found.faults));
  return found.schedule;
};
const faultsOf = (sentence: string) => {
  const found = readSchedule(sentence);
  return found.ok ? [] : found.faults;
};

describe('a schedule in a sentence', () => {
  it('is read as a person says it', () => {
    expect(read('every 20 minutes from 7 to 19, Monday to Friday, internet and tunnel, quick')).toEqual({
      times: { kind: 'every', minutes: 20, fromMinute: 420, untilMinute: 1140 },
      ...{ days: [0, 1, 2, 3, 4], reaches: ['internet', 'tunnel'], profile: 'quick' },
    });
    expect(read('Standard, at 7, 12:30 and 18; weekends')).toEqual({
      times: { kind: 'at', minutes: [420, 750, 1080] },
      ...{ days: [5, 6], reaches: ['internet'], profile: 'standard' },
    });
    expect(read('every hour').times).toEqual({ kind: 'every', minutes: 60, fromMinute: 0, untilMinute: 1440 });
  });

  it.each([
    ['sat to mon', [0, 5, 6]],
    ['on tuesdays and thursdays', [1, 3]],
    ['Wed, Fri', [2, 4]],
    ['daily', [...WEEK]],
  ])('knows the days of "%s"', (days, expected) => {
    expect(read(`every hour, ${days}`).days).toEqual(expected);
  });

  it.each([
    ['inside', ['local']],
    ['outside and inside', ['local', 'internet']],
    ['local, internet and tunnel', ['local', 'internet', 'tunnel']],
  ])('knows how far "%s" is', (reaches, expected) => {
    expect(read(`every hour, ${reaches}`).reaches).toEqual(expected);
  });

  it.each([
    ['', 'Say when'],
    ['Monday to Friday, quick', 'Say when'],
    ['every minute', 'no rest'],
    ['every 2 minutes', 'no rest'],
    ['every 30 hours', 'At most every 24 hours'],
    ['every hour from 19 to 7', 'lies before'],
    ['every hour from 7 to 25', 'Times are written'],
    ['at 12:75', 'Times are written'],
    ['at 24', 'Times are written'],
    ['every hour, at 7', 'two schedules'],
    ['every hour, mo', 'no time, no day'],
    ['every hour, thoroughly', 'no time, no day'],
  ])('says of "%s" what is wrong with it', (sentence, expected) => {
    expect(
      faultsOf(sentence)
        .map((fault) => fault.sentence)
        .join(' '),
    ).toContain(expected);
  });

  it('names the part that means nothing, and only that', () => {
    expect(faultsOf('every hour, Mondays, twice, tunnel').map(({ text }) => text)).toEqual(['twice']);
  });

  const times: fc.Arbitrary<TimesOfDay> = fc.oneof(
    fc
      .record({
        minutes: fc.integer({ min: 5, max: 1440 }),
        a: fc.integer({ min: 0, max: 1440 }),
        b: fc.integer({ min: 0, max: 1440 }),
      })
      .filter(({ a, b }) => a !== b)
      .map(({ minutes, a, b }) => ({
        kind: 'every' as const,
        minutes,
        fromMinute: Math.min(a, b),
        untilMinute: Math.max(a, b),
      })),
    fc
      .uniqueArray(fc.integer({ min: 0, max: 1439 }), { minLength: 1, maxLength: 6 })
      .map((minutes) => ({ kind: 'at' as const, minutes: minutes.sort((a, b) => a - b) })),
  );

  it('is said so that it is read as the same again, whatever it is', () => {
    fc.assert(
      fc.property(
        times,
        fc.subarray([...WEEK], { minLength: 1 }),
        fc.subarray([...PEER_REACHES], { minLength: 1 }),
        fc.constantFrom(...SCHEDULED_PROFILES),
        (of, days, reaches, profile) => {
          const schedule = { times: of, days, reaches, profile };
          expect(read(scheduleWords(schedule))).toEqual(schedule);
        },
      ),
    );
  });

  it('breaks on nothing that may be typed', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 80 }), (typed) => {
        const found = readSchedule(typed);
        expect(found.ok || found.faults.length > 0).toBe(true);
      }),
    );
  });
});

describe('the times of a schedule', () => {
  it('begin at the beginning of a span and end with its end', () => {
    expect(minutesOfDay(read('every 20 minutes from 7 to 8').times)).toEqual([420, 440, 460, 480]);
    expect(minutesOfDay(read('every 6 hours').times)).toEqual([0, 360, 720, 1080]);
  });

  it('are as many a week as days, times and reaches make', () => {
    expect(runsAWeek(read('every 20 minutes from 7 to 19, Monday to Friday, internet and tunnel'))).toBe(5 * 37 * 2);
  });

  it('are those of the office’s own calendar, each once, also when they are asked for piece by piece', () => {
    const schedule = read('at 0:30 and 23, Sunday');
    // Sunday, 29 November 2026, begins at 23:00 UTC of the Saturday.
    const expected = [Date.UTC(2026, 10, 28, 23, 30), Date.UTC(2026, 10, 29, 22)];
    const [from, until] = [Date.UTC(2026, 10, 26), Date.UTC(2026, 11, 2)];
    expect(dueTimes(schedule, AHEAD, from, until)).toEqual(expected);
    const pieces: number[] = [];
    for (let at = from; at < until; at += 17 * 60_000)
      pieces.push(...dueTimes(schedule, AHEAD, at, Math.min(until, at + 17 * 60_000)));
    expect(pieces).toEqual(expected);
    // The end of a piece is its own, the beginning is not.
    expect(dueTimes(schedule, AHEAD, expected[0]!, expected[1]!)).toEqual([expected[1]]);
  });

  it('are left out where the clock skips them', () => {
    const skipping: ZoneClock = {
      ...AHEAD,
      instantOf: (day, minute) => (minute === 150 ? null : AHEAD.instantOf(day, minute)),
    };
    const due = dueTimes(read('at 1 and 2:30 and 4'), skipping, Date.UTC(2026, 2, 28, 23), Date.UTC(2026, 2, 29, 22));
    expect(due).toHaveLength(2);
  });

  it('are spread evenly over the span that they may be late, the same each time that one asks', () => {
    const late = Array.from({ length: 2000 }, (_, place) => spreadMs(10, `device-${place % 40}`, place * 1200_000));
    expect(Math.min(...late)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...late)).toBeLessThan(600_000);
    for (let tenth = 0; tenth < 10; tenth += 1) {
      const many = late.filter((ms) => Math.floor(ms / 60_000) === tenth).length;
      // 200 each; a fair spread is off by more than 60 in one of a million tenths.
      expect(Math.abs(many - 200)).toBeLessThan(60);
    }
    expect(spreadMs(10, 'device-1', 1200_000)).toBe(spreadMs(10, 'device-1', 1200_000));
    expect(spreadMs(0, 'device-1', 1200_000)).toBe(0);
  });
});
