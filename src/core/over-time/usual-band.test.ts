import { drawNoise, NOISE_SHAPES } from '../judge/compare/simulated-groups';
import { seededRandom } from '../stats/seeded-random';
import { unusualAfter, usualBandOf, usualBands } from './usual-band';

const level = (value: number, count = 20) => Array.from({ length: count }, (_, i) => value + (i % 2));

describe('the usual band', () => {
  it('is known from eight occasions on', () => {
    expect(usualBandOf(level(100, 7), 'rate')).toBeNull();
    expect(usualBandOf(level(100, 8), 'rate')).not.toBeNull();
  });

  it('is never narrower than 5 %, 5 ms, or half a percentage point', () => {
    const flat = Array.from({ length: 12 }, () => 200);
    expect(usualBandOf(flat, 'rate')).toEqual({ low: 190, median: 200, high: 210 });
    expect(usualBandOf(flat, 'delay')).toEqual({ low: 195, median: 200, high: 205 });
    expect(
      usualBandOf(
        flat.map(() => 0),
        'loss',
      ),
    ).toEqual({ low: 0, median: 0, high: 0.005 });
  });

  it('forgets what is more than thirty occasions ago', () => {
    const moved = [...level(100, 40), ...level(300, 30)];
    expect(usualBandOf(moved, 'delay')!.median).toBeCloseTo(300.5, 6);
    expect(usualBands(moved, 'delay')[40]!.median).toBeCloseTo(100.5, 6);
  });

  it('is not moved by single occasions that were far off', () => {
    const withOutages = [...level(480, 27), 2, 3, 1];
    expect(usualBandOf(withOutages, 'rate')!.low).toBeGreaterThan(400);
  });

  it('says of what lies outside how rare it is', () => {
    const before = [...level(480, 38), 300, 290];
    expect(unusualAfter(before, 295, 'rate')).toEqual({ is: 'low', asFar: 1, of: 40 });
    expect(unusualAfter(before, 700, 'rate')).toEqual({ is: 'high', asFar: 0, of: 40 });
    expect(unusualAfter(before, 478, 'rate')).toBeNull();
    expect(unusualAfter(level(100, 5), 1, 'rate')).toBeNull();
  });

  /** Fixed seeds; `npm run prove-statistics` prints the same with fresh ones. */
  it.each(NOISE_SHAPES)('leaves out at most 1 in 20 of plain %s noise', (shape) => {
    for (const count of [8, 12, 30]) {
      const random = seededRandom(count);
      const draw = () => 1000 + 100 * drawNoise(shape, random);
      let outside = 0;
      for (let each = 0; each < 2000; each += 1) {
        const before = Array.from({ length: count }, draw);
        if (unusualAfter(before, draw(), 'delay') !== null) outside += 1;
      }
      expect(outside / 2000).toBeLessThanOrEqual(0.06);
    }
  });
});
