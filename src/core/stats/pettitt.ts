import { doubledMidRanks } from './mid-ranks';

/** Where a series may have changed its level: `at` is the index of the first value after. */
export interface ChangePoint {
  readonly at: number;
  /** That a level series shows as much; two-sided. */
  readonly p: number;
}

/**
 * Pettitt's test (Applied Statistics 28, 1979): whether the ranks before and after some place lie further apart than in a
 * level series, p ≈ 2 exp(−6 K² / (n³ + n²)). The place is told by the same sums, each by its own spread (Mann and Whitney's):
 * as they stand they are drawn to the middle. At least `edge` values lie on either side. Null for a series that is too
 * short. Example: ([1, 2, 1, 2, 9, 8, 9, 8], 2) → at 4.
 */
export function pettitt(values: readonly number[], edge: number): ChangePoint | null {
  const count = values.length;
  if (count < 2 * edge || edge < 1) return null;
  const ranks = doubledMidRanks(values);
  let [sum, most, furthest, at] = [0, 0, -1, edge];
  for (let before = 1; before <= count - edge; before += 1) {
    sum += ranks[before - 1]!;
    if (before < edge) continue;
    const distance = Math.abs(sum - before * (count + 1));
    const apart = distance / Math.sqrt(before * (count - before));
    most = Math.max(most, distance);
    if (apart > furthest) [furthest, at] = [apart, before];
  }
  return { at, p: Math.min(1, 2 * Math.exp((-6 * most * most) / (count ** 3 + count ** 2))) };
}
