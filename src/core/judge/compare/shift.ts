import type { Interval } from '../../stats/block-bootstrap';
import { median } from '../../stats/percentile';
import type { RandomSource } from '../../stats/seeded-random';
import { rankSumP, rankSumSpread } from '../../stats/rank-sum';
import { differenceAt } from './difference-at';
import { rankDistribution, type RankDistribution } from './rank-distribution';

/** How far the second of two groups lies from the first, in the unit of the values. */
export interface Shift {
  /** Hodges–Lehmann: the median of all differences of a value of the second and one of the first. */
  readonly estimate: number;
  /** 95 % interval, from the same distribution as `p`: it leaves out 0 exactly when p ≤ 0.05. */
  readonly interval: Interval;
  /** Two-sided. */
  readonly p: number;
}

const ALPHA = 0.05;
/** Groups of more than this together, neither of them small, go by the normal distribution, which is then as good. */
const LARGE = 300;
const LEAST_OF_LARGE = 20;
const NORMAL_975 = 1.959964;

/** Number of ways to choose `k` of `n`. */
export function choices(n: number, k: number): number {
  let result = 1;
  for (let index = 1; index <= k; index += 1) result = (result * (n - k + index)) / index;
  return result;
}

/** Whether any arrangement of groups of these sizes could be rare enough to tell: 2 / C(n + m, n) ≤ 0.05. */
export function canTell(n: number, m: number): boolean {
  return n > 0 && m > 0 && 2 / choices(n + m, n) <= ALPHA;
}

/** The U values that are too low and too high to be chance, one in forty on each side. */
function limits({ atMost, atLeast }: RankDistribution, pairs: number): { readonly low: number; readonly high: number } {
  let low = -1;
  while (atMost(low + 0.5) <= ALPHA / 2) low += 0.5;
  let high = pairs + 1;
  while (atLeast(high - 0.5) <= ALPHA / 2) high -= 0.5;
  return { low, high };
}

/**
 * Shift of `b` against `a` with its exact 95 % interval from the Mann–Whitney distribution (Hollander and Wolfe, chapter 4),
 * by mid-ranks where values tie; a difference of exactly 0 counts for whichever side makes it less striking. Null where
 * the groups are too small to tell anything. Example: [1.1, 2.2, 3.3, 4.4] and [11, 12, 13, 14]: estimate 9.8.
 */
export function shiftOf(a: readonly number[], b: readonly number[], random: RandomSource): Shift | null {
  if (!canTell(a.length, b.length)) return null;
  if (a.length + b.length > LARGE && Math.min(a.length, b.length) >= LEAST_OF_LARGE) return shiftOfLarge(a, b);
  const differences = b.flatMap((one) => a.map((other) => one - other)).sort((x, y) => x - y);
  const pairs = differences.length;
  const distribution = rankDistribution([...a, ...b], b.length, random);
  const { low, high } = limits(distribution, pairs);
  // U falls as the shift grows: below the k-th difference it is pairs − k + 1, above it pairs − k.
  const lowAt = differences.find((_, index) => pairs - (index + 1) < high);
  const highAt = differences.findLast((_, index) => pairs - index > low);
  const above = differences.filter((difference) => difference > 0).length;
  const atOrAbove = differences.filter((difference) => difference >= 0).length;
  const u = Math.min(Math.max(pairs / 2, above), atOrAbove);
  const p = Math.min(1, 2 * Math.min(distribution.atMost(u), distribution.atLeast(u)));
  return { estimate: median(differences)!, interval: { low: lowAt!, high: highAt! }, p };
}

/** The same for large groups: U is normal (with ties counted for less), and no difference need be written down. */
function shiftOfLarge(a: readonly number[], b: readonly number[]): Shift {
  const [first, second] = [Float64Array.from(a).sort(), Float64Array.from(b).sort()];
  const pairs = first.length * second.length;
  const reach = NORMAL_975 * rankSumSpread(a, b);
  const at = (place: number) => differenceAt(first, second, Math.max(0, Math.min(pairs - 1, place)));
  const middle = (pairs - 1) / 2;
  return {
    estimate: (at(Math.floor(middle)) + at(Math.ceil(middle))) / 2,
    interval: { low: at(Math.floor(pairs / 2 - reach)), high: at(Math.ceil(pairs / 2 + reach) - 1) },
    p: rankSumP(a, b),
  };
}
