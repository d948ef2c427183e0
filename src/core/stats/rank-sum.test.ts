import { rankSumP } from './rank-sum';

/** What R 4 gives by wilcox.test(a, b, exact = FALSE), which corrects for continuity. */
describe('the rank-sum test by its normal approximation', () => {
  it('gives what R gives, with ties and without', () => {
    // Depression scale factors at two visits, Hollander & Wolfe (1973), p. 29, taken as two groups.
    const first = [1.83, 0.5, 1.62, 2.48, 1.68, 1.88, 1.55, 3.06, 1.3];
    const second = [0.878, 0.647, 0.598, 2.05, 1.06, 1.29, 1.06, 3.14, 1.29];
    expect(rankSumP(first, second)).toBeCloseTo(0.1329195, 6);
    const a = [8.7, 10.4, 8.3, 13.2, 10.7, 8.4, 11, 11.5, 11.2, 9.4, 13, 10.8, 8.8, 5.6, 12.2, 9.9, 10, 11.9, 11.6];
    a.push(11.2, 11.8, 11.6, 10.1, 6, 11.2);
    const b = [10.9, 10.7, 8.1, 10, 11.8, 13.7, 10.8, 11.8, 10.9, 8.2, 10.2, 10.2, 10.9, 13.2, 12.5, 10.7, 10.5, 12.4];
    expect(rankSumP(a, b)).toBeCloseTo(0.4749197, 6);
  });

  it('is 1 where all are the same', () => {
    expect(rankSumP([5, 5, 5, 5, 5], [5, 5, 5, 5, 5])).toBe(1);
  });
});
