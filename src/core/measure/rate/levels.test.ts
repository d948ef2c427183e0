import fc from 'fast-check';
import { seededRandom } from '../../stats/seeded-random';
import { levelsOf } from './levels';

/** Normal noise by the sum of twelve uniform draws, seeded. */
function noise(random: () => number): number {
  return Array.from({ length: 12 }, random).reduce((sum, value) => sum + value, 0) - 6;
}

const DRAWS = 500;
/** How often a series made anew each time has more than one level. */
function splitShare(make: (random: () => number) => number[]): number {
  const random = seededRandom(4870);
  let split = 0;
  for (let draw = 0; draw < DRAWS; draw += 1) if (levelsOf(make(random)).length > 1) split += 1;
  return split / DRAWS;
}
const bins = (count: number, rate: (index: number) => number) => Array.from({ length: count }, (_, i) => rate(i));

describe('levels of a rate', () => {
  it('are found where a line bursts at first, and dated within a fifth of a second', () => {
    const random = seededRandom(1);
    const found = levelsOf(bins(90, (i) => (i < 35 ? 200 : 60) * (1 + 0.05 * noise(random))));
    expect(found).toHaveLength(2);
    expect(Math.abs(found[0]!.to - 35)).toBeLessThanOrEqual(2);
    expect(found[0]!.bps / 200).toBeCloseTo(1, 1);
    expect(found[1]!.bps / 60).toBeCloseTo(1, 1);
  });

  it('are one in 99 of 100 lines that only rustle, saw, stall or wander', () => {
    const share = {
      rustling: splitShare((random) => bins(90, () => 100 * (1 + 0.08 * noise(random)))),
      sawing: splitShare((random) => bins(90, (i) => 100 - 15 * ((i % 20) / 20) + noise(random))),
      stalling: splitShare((random) => bins(90, () => (random() < 0.08 ? 0 : 100 + 3 * noise(random)))),
      wandering: splitShare((random) => {
        let level = 55;
        return bins(90, (i) => {
          if (i % 3 === 0) level = 30 + 50 * random();
          return level;
        });
      }),
      drifting: splitShare((random) => bins(90, (i) => 60 + 0.5 * i + noise(random))),
    };
    for (const found of Object.values(share)) expect(found).toBeLessThanOrEqual(0.01);
  });

  it('are found in 95 of 100 lines that fall to three quarters and rustle by 5 %', () => {
    const found = splitShare((random) => {
      const at = 15 + Math.floor(60 * random());
      return bins(90, (i) => (i < at ? 100 : 75) * (1 + 0.05 * noise(random) * 0.5));
    });
    expect(found).toBeGreaterThanOrEqual(0.95);
  });

  it('cover the whole series once, in order', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 1e9, noNaN: true }), { maxLength: 120 }), (bps) => {
        const levels = levelsOf(bps);
        expect(levels.reduce((sum, { from, to }) => sum + (to - from), 0)).toBe(bps.length);
        levels.forEach(({ from }, index) => expect(from).toBe(index === 0 ? 0 : levels[index - 1]!.to));
      }),
    );
  });
});
