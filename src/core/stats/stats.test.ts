import fc from 'fast-check';
import { blockBootstrapInterval } from './block-bootstrap';
import { fewPartsFactor, studentQuantile } from './student';
import { interquartileMean, mean, movingMeans } from './mean';
import { median, percentile } from './percentile';
import { seededRandom } from './seeded-random';

const finite = fc.double({ min: -1e9, max: 1e9, noNaN: true });

describe('percentile', () => {
  it('interpolates linearly between order statistics (type 7)', () => {
    expect(percentile([40, 10, 30, 20], 0.5)).toBe(25);
    expect(percentile([1, 2, 3, 4, 5, 6, 7, 8, 9, 10], 0.95)).toBeCloseTo(9.55, 10);
    expect(percentile([7], 0.95)).toBe(7);
  });

  it('gives null for no samples instead of 0', () => {
    expect(percentile([], 0.5)).toBeNull();
    expect(median([])).toBeNull();
    expect(mean([])).toBeNull();
    expect(interquartileMean([])).toBeNull();
  });

  it('gives of few values the median that it gives of many', () => {
    fc.assert(
      fc.property(fc.array(finite, { minLength: 1, maxLength: 6 }), (values) => {
        // A zero of either sign is the same figure.
        expect(median(values)! + 0).toBe(percentile(values, 0.5)! + 0);
      }),
    );
  });

  it('lies between the extremes and grows with the share', () => {
    fc.assert(
      fc.property(fc.array(finite, { minLength: 1 }), fc.double({ min: 0, max: 1, noNaN: true }), (values, share) => {
        const value = percentile(values, share)!;
        const slack = 1e-6;
        expect(value).toBeGreaterThanOrEqual(Math.min(...values) - slack);
        expect(value).toBeLessThanOrEqual(Math.max(...values) + slack);
        expect(percentile(values, 1)!).toBeGreaterThanOrEqual(value - slack);
      }),
    );
  });
});

describe('interquartile mean', () => {
  it('weights the edge samples by the part inside the middle half', () => {
    expect(interquartileMean([1, 2, 3, 4, 5, 6, 7, 8, 100])).toBeCloseTo(5, 10);
  });

  it('is not moved by a stall and the burst after it', () => {
    const steady = Array.from({ length: 40 }, () => 100);
    const stalled = [...steady];
    stalled[10] = 0;
    stalled[11] = 200;
    expect(interquartileMean(stalled)).toBe(100);
  });

  it('equals the value of a constant series of any length', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 50 }), fc.double({ min: 0, max: 1e9, noNaN: true }), (count, value) => {
        expect(interquartileMean(Array.from({ length: count }, () => value))).toBeCloseTo(value, 3);
      }),
    );
  });
});

describe('seeded random', () => {
  it('repeats itself for a seed and differs between seeds', () => {
    const first = Array.from({ length: 5 }, seededRandom(1));
    expect(Array.from({ length: 5 }, seededRandom(1))).toEqual(first);
    expect(Array.from({ length: 5 }, seededRandom(2))).not.toEqual(first);
  });

  it('is uniform enough that the mean of many draws is near a half', () => {
    expect(mean(Array.from({ length: 20_000 }, seededRandom(7)))).toBeCloseTo(0.5, 1);
  });
});

describe('block bootstrap', () => {
  it('covers the true mean of independent noise about 95 times in 100', () => {
    const noise = seededRandom(42);
    let covered = 0;
    for (let trial = 0; trial < 200; trial += 1) {
      const values = Array.from({ length: 60 }, () => 100 + (noise() - 0.5) * 10);
      const interval = blockBootstrapInterval(values, mean, {
        blockLength: 3,
        draws: 300,
        random: seededRandom(trial),
      })!;
      if (interval.low <= 100 && interval.high >= 100) covered += 1;
    }
    expect(covered).toBeGreaterThanOrEqual(174);
    expect(covered).toBeLessThanOrEqual(199);
  });

  it('is wider by what so few blocks do not know of their spread', () => {
    // Any table of Student's t: 0.975 with 2 degrees of freedom is 4.303, with 9 2.262.
    expect(fewPartsFactor(3)).toBeCloseTo((4.303 / 1.96) * Math.sqrt(3 / 2), 3);
    expect(fewPartsFactor(10)).toBeCloseTo((2.262 / 1.96) * Math.sqrt(10 / 9), 3);
    expect(fewPartsFactor(2)).toBe(fewPartsFactor(3));
    expect(fewPartsFactor(1000)).toBeCloseTo(1, 2);
    expect(studentQuantile(40)).toBeCloseTo(2.021, 2);
  });

  it('says nothing about fewer than two blocks', () => {
    expect(blockBootstrapInterval([1, 2, 3], mean, { blockLength: 3, draws: 50, random: seededRandom(1) })).toBeNull();
  });
});

describe('moving means', () => {
  it('are the means of neighbours, one for each place where enough follow', () => {
    expect(movingMeans([1, 3, 5, 7], 2)).toEqual([2, 4, 6]);
    expect(movingMeans([1, 3, 5], 1)).toEqual([1, 3, 5]);
    expect(movingMeans([1, 3], 3)).toEqual([]);
  });
});
