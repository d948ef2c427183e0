import type { StrawSegment } from '@/core';
import { boreOf, layStraw, tubePath } from './straw-shape';

const segment = (kind: StrawSegment['kind'], capacityBps: number | null, kink = false): StrawSegment => ({
  ...{ kind, label: kind, capacityBps, kink },
});
const yOf = (path: string) => [...path.matchAll(/[\d.]+ ([\d.]+)/g)].map((found) => Number(found[1]));

describe('the bore of the straw', () => {
  it('is the log of the rate: each tenfold widens it by as much', () => {
    const step = boreOf(100e6) - boreOf(10e6);
    expect(boreOf(1e9) - boreOf(100e6)).toBeCloseTo(step);
    expect(step).toBeGreaterThan(0);
  });

  it('has an end on both sides, so that a slow line is still seen and a fast one fits', () => {
    expect(boreOf(0)).toBe(boreOf(10e6));
    expect(boreOf(0)).toBeGreaterThan(0);
    expect(boreOf(100e9)).toBe(boreOf(10e9));
  });
});

describe('a straw laid out', () => {
  it('fills its width, segment by segment', () => {
    const laid = layStraw([segment('device', null), segment('link', 1e9), segment('line', 500e6)], 1200);
    expect(laid.map(({ fromX, toX }) => [fromX, toX])).toEqual([
      [0, 400],
      [400, 800],
      [800, 1200],
    ]);
  });

  it('draws what is not known as wide as the widest that is, and says that it is not known', () => {
    const [device, link, line] = layStraw([segment('device', null), segment('link', 1e9), segment('line', 5e6)], 300);
    expect(device).toMatchObject({ known: false, bore: link!.bore });
    expect(line).toMatchObject({ known: true });
    expect(line!.bore).toBeLessThan(link!.bore);
  });

  it('sags at a kink and nowhere else', () => {
    const heights = (kink: boolean) =>
      yOf(
        tubePath(
          layStraw([segment('device', 1e9), segment('link', 1e9, kink), segment('line', 1e9)], 300),
          50,
          (piece) => piece.bore,
        ),
      );
    expect(new Set(heights(false)).size).toBe(2);
    expect(Math.max(...heights(true))).toBeGreaterThan(Math.max(...heights(false)));
  });
});
