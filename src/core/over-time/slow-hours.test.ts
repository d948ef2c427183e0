import { seededRandom } from '../stats/seeded-random';
import { drawGroup } from '../judge/compare/simulated-groups';
import { isNeighbour, slowHoursOf, type HourlyRate } from './slow-hours';

/** Three weeks in which a line was looked at at these hours. */
function weeks(
  hours: readonly number[],
  random: () => number,
  slow: readonly number[] = [],
  share = 0.7,
): HourlyRate[] {
  return Array.from({ length: 21 }, (_, day) =>
    hours.map((hour): HourlyRate => {
      const [noise] = drawGroup('normal', 1, random);
      const bps = 480e6 * (slow.includes(hour) ? share : 1) * Math.exp(0.05 * noise!);
      return { hour, bps, occasion: `${day} ${hour}` };
    }),
  ).flat();
}
const EVERY_TWO = [0, 2, 4, 6, 8, 10, 12, 14, 16, 18, 20, 22];

describe('hours in which a line is slow', () => {
  it('are found in 95 of 100 lines that sag by 30 %, with those hours and no other', () => {
    const random = seededRandom(11);
    let right = 0;
    for (let line = 0; line < 100; line += 1) {
      const found = slowHoursOf(weeks(EVERY_TWO, random, [20, 22]));
      if (found?.hours.join() === '20,22') right += 1;
    }
    expect(right).toBeGreaterThanOrEqual(95);
  });

  it('are said of at most 1 in 100 lines that are the same all day', () => {
    const random = seededRandom(12);
    let wrong = 0;
    for (let line = 0; line < 300; line += 1) if (slowHoursOf(weeks(EVERY_TWO, random)) !== null) wrong += 1;
    expect(wrong).toBeLessThanOrEqual(3);
  });

  it('need four occasions of an hour, and six of the others', () => {
    const random = seededRandom(13);
    const all = weeks([9, 20], random, [20]);
    expect(slowHoursOf(all.filter(({ occasion }) => Number(occasion.split(' ')[0]) < 3))).toBeNull();
    expect(slowHoursOf([])).toBeNull();
  });

  it('know the hour after midnight as a neighbour of the last', () => {
    expect([isNeighbour(23, 0), isNeighbour(0, 23), isNeighbour(5, 6), isNeighbour(5, 7)]).toEqual([
      true,
      true,
      true,
      false,
    ]);
  });
});
