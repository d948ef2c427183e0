import fc from 'fast-check';
import { doubledMidRanks } from '../../stats/mid-ranks';
import { seededRandom } from '../../stats/seeded-random';
import { compareGroups, comparePairs, type ComparedRun } from './group-comparison';
import { holmAdjusted } from './holm';
import { rankDistribution } from './rank-distribution';
import { canTell, choices, shiftOf } from './shift';
import { drawGroup, NOISE_SHAPES } from './simulated-groups';

const noDraws = () => {
  throw new Error('a small group is counted out');
};
const runs = (values: readonly number[], perOccasion = 1): ComparedRun[] =>
  values.map((value, index) => ({ value, occasion: `o${Math.floor(index / perOccasion)}` }));

describe('the Mann–Whitney distribution', () => {
  it('is that of all arrangements, counted one by one', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 5 }), { minLength: 4, maxLength: 9 }),
        fc.nat(6),
        (values, cut) => {
          const size = 1 + (cut % (values.length - 1));
          const counted = rankDistribution(values, size, noDraws);
          const ranks = doubledMidRanks(values);
          const us: number[] = [];
          for (let mask = 0; mask < 2 ** values.length; mask += 1) {
            const chosen = ranks.filter((_, index) => mask & (1 << index));
            if (chosen.length === size)
              us.push(chosen.reduce((sum, rank) => sum + rank, 0) / 2 - (size * (size + 1)) / 2);
          }
          for (const u of new Set(us)) {
            expect(counted.atMost(u)).toBeCloseTo(us.filter((other) => other <= u).length / us.length, 10);
            expect(counted.atLeast(u)).toBeCloseTo(us.filter((other) => other >= u).length / us.length, 10);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('has the tabled tails: P(U ≤ 2) = 4/70 for 4 and 4, P(U ≤ 2) = 4/252 for 5 and 5', () => {
    const of = (n: number, m: number) =>
      rankDistribution(
        Array.from({ length: n + m }, (_, i) => i),
        m,
        noDraws,
      );
    expect(of(4, 4).atMost(2)).toBeCloseTo(4 / 70, 12);
    expect(of(5, 5).atMost(2)).toBeCloseTo(4 / 252, 12);
    expect(of(5, 5).atLeast(25)).toBeCloseTo(1 / 252, 12);
  });

  it('is drawn for groups too large to be counted out, near the normal that it tends to', () => {
    const many = rankDistribution(
      Array.from({ length: 400 }, (_, i) => i),
      200,
      seededRandom(3),
    );
    const sd = Math.sqrt((200 * 200 * 401) / 12);
    expect(many.atMost(20_000 - 1.96 * sd)).toBeGreaterThan(0.02);
    expect(many.atMost(20_000 - 1.96 * sd)).toBeLessThan(0.03);
  });
});

describe('the shift of two groups', () => {
  // Hollander and Wolfe, Example 4.1: permeability of human placental membranes at term and at 12 to 26 weeks.
  const TERM = [0.8, 0.83, 1.89, 1.04, 1.45, 1.38, 1.91, 1.64, 0.73, 1.46];
  const EARLY = [1.15, 0.88, 0.9, 0.74, 1.21];

  it('is that of the worked example of the textbook: estimate −0.305, p 0.2544 two-sided', () => {
    const shift = shiftOf(TERM, EARLY, noDraws)!;
    expect(shift.estimate).toBeCloseTo(-0.305, 10);
    expect(shift.p).toBeCloseTo(0.2544, 4);
    expect(shift.interval.low).toBeCloseTo(-0.76, 10);
    expect(shift.interval.high).toBeCloseTo(0.15, 10);
  });

  it('is too little to tell where no arrangement could be rare: 3 against 3, and 2 against up to 7', () => {
    expect([canTell(3, 3), canTell(2, 7), canTell(1, 30)]).toEqual([false, false, false]);
    expect([canTell(4, 4), canTell(2, 8), canTell(3, 5), canTell(1, 39)]).toEqual([true, true, true, true]);
    expect(choices(15, 5)).toBe(3003);
    expect(shiftOf([1, 2, 3], [11, 12, 13], noDraws)).toBeNull();
  });

  it('and its interval never disagree with p, ties and all', () => {
    const values = fc.array(fc.integer({ min: 0, max: 6 }), { minLength: 4, maxLength: 10 });
    fc.assert(
      fc.property(values, values, (a, b) => {
        const { interval, p, estimate } = shiftOf(a, b, noDraws)!;
        expect(interval.low > 0 || interval.high < 0).toBe(p <= 0.05);
        expect(interval.low).toBeLessThanOrEqual(estimate);
        expect(interval.high).toBeGreaterThanOrEqual(estimate);
      }),
      { numRuns: 300 },
    );
  });

  it('turns with the groups and moves with a shift of one of them', () => {
    const [a, b] = [drawGroup('skewed', 7, seededRandom(1)), drawGroup('skewed', 9, seededRandom(2))];
    const there = shiftOf(a, b, noDraws)!;
    const back = shiftOf(b, a, noDraws)!;
    const moved = shiftOf(
      a,
      b.map((value) => value + 3),
      noDraws,
    )!;
    expect(back.estimate).toBeCloseTo(-there.estimate, 10);
    expect(back.p).toBeCloseTo(there.p, 10);
    expect(moved.interval.low).toBeCloseTo(there.interval.low + 3, 10);
  });
});

/** Fixed seeds; `npm run prove-statistics` prints the same cells with fresh ones. */
describe('how often the comparison is wrong', () => {
  const SIZES = [
    ...([
      [2, 8],
      [2, 15],
      [3, 5],
      [3, 10],
      [4, 4],
      [5, 5],
      [7, 9],
      [10, 10],
      [15, 15],
    ] as const),
  ];
  const DRAWS = 2000;

  it.each(NOISE_SHAPES)('calls identical groups of %s noise different in at most 5.5 %% of draws', (shape) => {
    for (const [n, m] of SIZES) {
      const random = seededRandom(n * 100 + m);
      let real = 0;
      for (let draw = 0; draw < DRAWS; draw += 1)
        if (shiftOf(drawGroup(shape, n, random), drawGroup(shape, m, random), noDraws)!.p <= 0.05) real += 1;
      expect(real / DRAWS).toBeLessThanOrEqual(0.055);
    }
  });

  it.each(NOISE_SHAPES)('has the true shift of %s noise in its interval in at least 94 %% of draws', (shape) => {
    for (const [n, m] of SIZES) {
      const random = seededRandom(7 + n * 100 + m);
      let covered = 0;
      for (let draw = 0; draw < DRAWS; draw += 1) {
        const moved = drawGroup(shape, m, random).map((value) => value + 1.7);
        const { interval } = shiftOf(drawGroup(shape, n, random), moved, noDraws)!;
        if (interval.low <= 1.7 && interval.high >= 1.7) covered += 1;
      }
      expect(covered / DRAWS).toBeGreaterThanOrEqual(0.94);
    }
  });

  it('of ten pairs of identical groups calls one real in at most 5.5 % of draws, by Holm', () => {
    const random = seededRandom(9);
    const pairs = [0, 1, 2, 3, 4].flatMap((a) => [0, 1, 2, 3, 4].filter((b) => b > a).map((b) => [a, b] as const));
    let wrong = 0;
    for (let draw = 0; draw < 400; draw += 1) {
      const groups = pairs.slice(0, 5).map(() => runs(drawGroup('normal', 6, random).map((value) => 100 + value)));
      if (
        comparePairs(groups, pairs, 'delay', noDraws).some(
          ({ comparison }) => comparison.status === 'told' && comparison.real,
        )
      )
        wrong += 1;
    }
    expect(wrong / 400).toBeLessThanOrEqual(0.055);
  });
});

describe('two groups of runs', () => {
  it('that differ are told to, by how much, and that it matters', () => {
    const found = compareGroups(runs([100, 101, 99, 102, 100]), runs([140, 138, 142, 141, 139]), 'rate', noDraws);
    expect(found).toMatchObject({ status: 'told', real: true, matters: 'yes', moreWanted: null, unit: 'occasions' });
    if (found.status === 'told') expect(found.shift).toBeCloseTo(1.4, 1);
  });

  it('may differ for sure and not matter: that is an answer', () => {
    const found = compareGroups(runs([10, 10.1, 10.05, 10.02]), runs([12, 12.1, 12.05, 12.02]), 'delay', noDraws);
    expect(found).toMatchObject({ status: 'told', real: true, matters: 'no', moreWanted: null });
  });

  it('of three runs each are too few to tell, however far apart, and it is said how many more would do', () => {
    const found = compareGroups(runs([100, 101, 99]), runs([50, 51, 49]), 'rate', noDraws);
    expect(found).toMatchObject({ status: 'too-few', moreWanted: 2, medianA: 100, medianB: 50 });
  });

  it('that reach over the limit cannot be told to matter yet, with the runs that should decide it', () => {
    const wide = compareGroups(runs([100, 104, 96, 108, 92]), runs([104, 100, 108, 97, 111]), 'rate', noDraws);
    expect(wide).toMatchObject({ status: 'told', real: false, matters: 'cannot tell yet' });
    if (wide.status === 'told') expect(wide.moreWanted).toBeGreaterThan(3);
  });

  it('are compared by the medians of their occasions where there are four on both sides', () => {
    const of = (occasions: number) =>
      runs(
        Array.from({ length: occasions * 3 }, (_, i) => 100 + (i % 3)),
        3,
      );
    expect(compareGroups(of(4), of(4), 'rate', noDraws).unit).toBe('occasions');
    expect(compareGroups(of(4), of(3), 'rate', noDraws).unit).toBe('runs');
  });
});

it('Holm’s step-down adjusts as in its example, in any order', () => {
  const close = (found: number[], wanted: number[]) => found.forEach((p, i) => expect(p).toBeCloseTo(wanted[i]!, 12));
  close(holmAdjusted([0.01, 0.04, 0.03]), [0.03, 0.06, 0.06]);
  close(holmAdjusted([0.2, 0.001, 0.9]), [0.4, 0.003, 0.9]);
  expect(holmAdjusted([])).toEqual([]);
});
