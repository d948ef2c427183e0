import { drawNoise } from '../judge/compare/simulated-groups';
import type { FitnessCode } from '../judge/fitness/fitness-flag';
import { seededRandom } from '../stats/seeded-random';
import { weekBlockOf, weekBlocksOf, weekHoursOf, type WeekValue } from './hours-of-week';
import { planOverTime, type AnsweredRun } from './plan-over-time';

/** Three weeks, every third hour; `share`: what each gives of 490. */
function weeks(
  share: (at: Pick<WeekValue, 'weekday' | 'hour'>) => number,
  random: () => number,
  noise = 0.01,
): WeekValue[] {
  return Array.from({ length: 21 * 8 }, (_, index) => {
    const at = { weekday: Math.floor(index / 8) % 7, hour: (index % 8) * 3 };
    return { ...at, occasion: `o${index}`, value: 490e6 * share(at) * (1 + noise * drawNoise('normal', random)) };
  });
}

describe('the hours of the week', () => {
  it('have nights at weekends too', () => {
    expect(weekBlockOf({ weekday: 5, hour: 3 })).toBe('night');
    expect(weekBlockOf({ weekday: 5, hour: 12 })).toBe('weekend');
    expect([2, 7, 12, 20].map((hour) => weekBlockOf({ weekday: 1, hour }))).toEqual([
      'night',
      'morning',
      'working hours',
      'evening',
    ]);
  });

  it('each have their median', () => {
    const at = (weekday: number, hour: number, value: number) => ({ weekday, hour, value, occasion: String(value) });
    expect(weekHoursOf([at(6, 23, 3), at(0, 8, 10), at(0, 8, 20), at(0, 8, 60)])).toEqual([
      { weekday: 0, hour: 8, median: 20, occasions: 3 },
      { weekday: 6, hour: 23, median: 3, occasions: 1 },
    ]);
    expect(weekHoursOf([])).toEqual([]);
  });

  it('show the evening in which a line gives less, and no other part', () => {
    const sags = weeks((at) => (weekBlockOf(at) === 'evening' ? 0.63 : 1), seededRandom(1));
    const blocks = weekBlocksOf(sags, 'rate');
    expect(blocks.filter(({ worse }) => worse).map(({ block }) => block)).toEqual(['evening']);
    const evening = blocks.find(({ block }) => block === 'evening')!;
    expect(evening.median / 490e6).toBeCloseTo(0.63, 1);
    expect(evening.elseMedian! / 490e6).toBeCloseTo(1, 1);
  });

  it('are worse of a delay where it is more', () => {
    const slower = weeks((at) => (weekBlockOf(at) === 'working hours' ? 2 : 1), seededRandom(2)).map((each) => ({
      ...each,
      value: each.value / 10e6,
    }));
    expect(
      weekBlocksOf(slower, 'delay')
        .filter(({ worse }) => worse)
        .map(({ block }) => block),
    ).toEqual(['working hours']);
  });

  it('are too few to tell with one evening, and nothing is told of none', () => {
    const few = weeks(() => 1, seededRandom(3)).slice(0, 8);
    expect(weekBlocksOf(few, 'rate').every(({ worse }) => !worse)).toBe(true);
    expect(weekBlocksOf([], 'rate')).toEqual([]);
  });

  it('show a part that is none in at most 5 % of level weeks', () => {
    const random = seededRandom(4);
    let wrong = 0;
    for (let draw = 0; draw < 200; draw += 1)
      if (
        weekBlocksOf(
          weeks(() => 1, random, 0.1),
          'rate',
        ).some(({ worse }) => worse)
      )
        wrong += 1;
    expect(wrong / 200).toBeLessThanOrEqual(0.05);
  });
});

describe('the plan over time', () => {
  const run = (
    hour: number,
    word: AnsweredRun['answer']['word'],
    because: readonly FitnessCode[] = [],
  ): AnsweredRun => ({
    ...{
      startedAtMs: hour * 3600_000,
      day: `2026-11-${String(1 + Math.floor(hour / 24)).padStart(2, '0')}`,
      hour: hour % 24,
    },
    answer: { word, because },
  });

  it('counts only the runs that can tell, by day and by hour', () => {
    const over = planOverTime([
      run(8, 'met'),
      run(20, 'not met'),
      run(21, 'cannot tell', ['over-wifi']),
      run(32, 'met'),
    ]);
    expect(over).toMatchObject({ met: 2, notMet: 1, cannotTell: 1, reasons: [{ code: 'over-wifi', runs: 1 }] });
    expect(over.days).toEqual([
      { day: '2026-11-01', met: 1, notMet: 1 },
      { day: '2026-11-02', met: 1, notMet: 0 },
    ]);
    expect(over.hours).toEqual([
      { hour: 8, met: 2, notMet: 0 },
      { hour: 20, met: 0, notMet: 1 },
    ]);
  });

  it('tells the longest time in which it was not met, over runs that cannot tell', () => {
    const words = ['not met', 'met', 'not met', 'cannot tell', 'not met', 'met', 'not met'] as const;
    expect(planOverTime(words.map((word, hour) => run(hour, word))).longestBelow).toEqual({
      ...{ fromMs: 2 * 3600_000, untilMs: 4 * 3600_000, runs: 2 },
    });
  });

  it('is empty without runs, and has no stretch where all met it', () => {
    expect(planOverTime([])).toMatchObject({ met: 0, notMet: 0, longestBelow: null, days: [], reasons: [] });
    expect(planOverTime([run(1, 'met'), run(2, 'met')]).longestBelow).toBeNull();
  });
});
