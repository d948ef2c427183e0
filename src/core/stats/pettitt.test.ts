import fc from 'fast-check';
import { pettitt } from './pettitt';

describe('the change point of a series', () => {
  it('lies between the two levels, and is sure by the formula of the test', () => {
    const series = [...[1, 2, 1, 2, 1, 2], ...[9, 8, 9, 8, 9, 8]];
    // K = 36 where all of one side lie below all of the other: 2 exp(−6 · 36² / (12³ + 12²)).
    expect(pettitt(series, 2)).toEqual({ at: 6, p: expect.closeTo(2 * Math.exp((-6 * 1296) / 1872), 12) });
  });

  it('is found where it is, near an end too', () => {
    const series = [...Array.from({ length: 30 }, (_, i) => i % 3), ...[20, 21, 22, 20, 21]];
    expect(Math.abs(pettitt(series, 5)!.at - 30)).toBeLessThanOrEqual(1);
  });

  it('is the same whatever the unit, and turns with time', () => {
    const values = fc.array(fc.integer({ min: 0, max: 50 }), { minLength: 10, maxLength: 40 });
    fc.assert(
      fc.property(values, (series) => {
        const there = pettitt(series, 3)!;
        expect(
          pettitt(
            series.map((value) => 7 * value + 3),
            3,
          ),
        ).toEqual(there);
        expect(pettitt([...series].reverse(), 3)!.p).toBeCloseTo(there.p, 12);
        expect(there.at).toBeGreaterThanOrEqual(3);
        expect(there.at).toBeLessThanOrEqual(series.length - 3);
      }),
    );
  });

  it('is not asked of a series that is too short', () => {
    expect(pettitt([1, 2, 3], 2)).toBeNull();
    expect(pettitt([], 1)).toBeNull();
  });
});
