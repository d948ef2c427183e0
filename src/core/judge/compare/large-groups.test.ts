import fc from 'fast-check';
import { seededRandom } from '../../stats/seeded-random';
import { differenceAt } from './difference-at';
import { shiftOf } from './shift';
import { drawGroup, NOISE_SHAPES } from './simulated-groups';

const sorted = (values: readonly number[]) => new Float64Array(values).sort();

describe('a difference at a place', () => {
  it('is the one that stands there when all are written down, ties and all', () => {
    const some = fc.array(fc.oneof(fc.double({ noNaN: true, min: -1e6, max: 1e6 }), fc.integer({ min: 0, max: 4 })), {
      ...{ minLength: 1, maxLength: 12 },
    });
    fc.assert(
      fc.property(some, some, fc.nat(), (a, b, at) => {
        const all = [...sorted(b)].flatMap((one) => [...sorted(a)].map((other) => one - other)).sort((x, y) => x - y);
        const place = at % all.length;
        // 0 and −0 are one difference.
        expect(differenceAt(sorted(a), sorted(b), place) + 0).toBe(all[place]! + 0);
      }),
      { numRuns: 300 },
    );
  });
});

describe('a shift of large groups', () => {
  const DRAWS = 400;

  it.each(NOISE_SHAPES)(
    'of identical %s noise is called real in 5 of 100, and its interval holds the truth in 95',
    (shape) => {
      const random = seededRandom(17);
      let [real, held] = [0, 0];
      for (let draw = 0; draw < DRAWS; draw += 1) {
        const [a, b] = [drawGroup(shape, 190, random), drawGroup(shape, 120, random).map((value) => value + 0.4)];
        const moved = shiftOf(a, b, random)!;
        if (moved.interval.low <= 0.4 && moved.interval.high >= 0.4) held += 1;
        const { interval, p } = shiftOf(
          a,
          b.map((value) => value - 0.4),
          random,
        )!;
        const isReal = interval.low > 0 || interval.high < 0;
        if (isReal) real += 1;
        // Interval and p come from the same distribution: they disagree at most where it is a hair's breadth.
        if (p < 0.045) expect(isReal).toBe(true);
        if (p > 0.055) expect(isReal).toBe(false);
      }
      // 400 draws: 5 of 100 come out as 3 to 7.5.
      expect(real / DRAWS).toBeLessThanOrEqual(0.075);
      expect(held / DRAWS).toBeGreaterThanOrEqual(0.925);
    },
  );

  it('agrees with that of groups that are counted out, where both can be made', () => {
    const random = seededRandom(5);
    const [a, b] = [drawGroup('skewed', 149, random), drawGroup('skewed', 149, random).map((value) => value + 0.2)];
    const counted = shiftOf(a, b, seededRandom(1))!;
    // A few more of the same make them large.
    const large = shiftOf([...a, ...a.slice(0, 2)], [...b, ...b.slice(0, 2)], seededRandom(1))!;
    expect(large.estimate).toBeCloseTo(counted.estimate, 1);
    expect(large.interval.low).toBeCloseTo(counted.interval.low, 1);
    expect(large.interval.high).toBeCloseTo(counted.interval.high, 1);
  });
});

describe('a few against very many', () => {
  const DRAWS = 300;

  it('of identical noise are called different in 5 of 100', () => {
    const random = seededRandom(29);
    let real = 0;
    for (let draw = 0; draw < DRAWS; draw += 1) {
      const shape = NOISE_SHAPES[draw % NOISE_SHAPES.length]!;
      const { interval } = shiftOf(drawGroup(shape, 6, random), drawGroup(shape, 400, random), seededRandom(draw))!;
      if (interval.low > 0 || interval.high < 0) real += 1;
    }
    // 300 draws: 5 of 100 come out as 2.5 to 8.
    expect(real / DRAWS).toBeLessThanOrEqual(0.08);
    expect(real / DRAWS).toBeGreaterThanOrEqual(0.01);
  });

  it('come out the same whichever comes first', () => {
    const random = seededRandom(31);
    for (let draw = 0; draw < 10; draw += 1) {
      const [few, many] = [drawGroup('skewed', 6, random), drawGroup('skewed', 400, random)];
      const [one, other] = [shiftOf(few, many, seededRandom(draw))!, shiftOf(many, few, seededRandom(draw))!];
      expect(other.estimate).toBeCloseTo(-one.estimate, 9);
      // Each by 20 000 draws of its own: a standard deviation apart is 0.01 at most.
      expect(Math.abs(other.p - one.p)).toBeLessThan(0.04);
    }
  });
});
