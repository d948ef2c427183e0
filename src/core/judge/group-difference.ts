import type { Interval } from '../stats/block-bootstrap';
import { median, percentile } from '../stats/percentile';
import type { RandomSource } from '../stats/seeded-random';

/** Group B held against group A. Same unit as the values. */
export interface GroupDifference {
  readonly medianA: number;
  readonly medianB: number;
  /** medianB − medianA with its 95 % interval (percentile bootstrap, 2 000 draws). */
  readonly difference: number;
  readonly interval: Interval;
  /** Share of permutations with a difference at least as large: small when chance is no explanation. */
  readonly p: number;
  /** The interval excludes 0. */
  readonly real: boolean;
  /** Over 5 % of A's median, or over 5 ms for delays. */
  readonly matters: boolean;
}

const DRAWS = 2000;
const MATTERS_SHARE = 0.05;
const MATTERS_MS = 5;

function drawn(values: readonly number[], random: RandomSource): number[] {
  return values.map(() => values[Math.floor(random() * values.length)]!);
}

function shuffled(values: readonly number[], random: RandomSource): number[] {
  const result = [...values];
  for (let index = result.length - 1; index > 0; index -= 1) {
    const other = Math.floor(random() * (index + 1));
    [result[index], result[other]] = [result[other]!, result[index]!];
  }
  return result;
}

/**
 * Whether two groups of runs differ, by how much, and whether that matters. Null when a group has fewer than two runs:
 * then nothing can be said about chance. `random` is seeded by the caller, so that the answer can be repeated.
 */
export function differenceOf(
  a: readonly number[],
  b: readonly number[],
  quantity: 'rate' | 'delay',
  random: RandomSource,
): GroupDifference | null {
  if (a.length < 2 || b.length < 2) return null;
  const [medianA, medianB] = [median(a)!, median(b)!];
  const difference = medianB - medianA;
  const draws = Array.from({ length: DRAWS }, () => median(drawn(b, random))! - median(drawn(a, random))!);
  const interval = { low: percentile(draws, 0.025)!, high: percentile(draws, 0.975)! };
  const all = [...a, ...b];
  let asLarge = 0;
  for (let draw = 0; draw < DRAWS; draw += 1) {
    const mixed = shuffled(all, random);
    const found = median(mixed.slice(a.length))! - median(mixed.slice(0, a.length))!;
    if (Math.abs(found) >= Math.abs(difference) - 1e-9) asLarge += 1;
  }
  const size = Math.abs(difference);
  return {
    medianA,
    medianB,
    difference,
    interval,
    // The drawn arrangement counts too, so that p is never 0 (Phipson and Smyth 2010).
    p: (asLarge + 1) / (DRAWS + 1),
    real: interval.low > 0 || interval.high < 0,
    matters: quantity === 'delay' ? size > MATTERS_MS : size > MATTERS_SHARE * Math.abs(medianA),
  };
}
