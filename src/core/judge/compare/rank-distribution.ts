import { doubledMidRanks } from '../../stats/mid-ranks';
import type { RandomSource } from '../../stats/seeded-random';

/** Probabilities of the Mann–Whitney U over all arrangements of a pooled sample. U may end in a half where values tie. */
export interface RankDistribution {
  /** P(U ≤ u) and P(U ≥ u). */
  readonly atMost: (u: number) => number;
  readonly atLeast: (u: number) => number;
}

/** More steps than this take too long to be counted out; then arrangements are drawn. */
const MOST_STEPS = 40_000_000;
const DRAWS = 20_000;
/** Of untied samples, by their sizes: the same for all of them. */
const UNTIED = new Map<string, RankDistribution>();
const MOST_KEPT = 400;

/** How many of all choices of `size` of the ranks have each sum: index = sum, in doubled ranks. */
function countedOut(ranks: readonly number[], size: number): Float64Array {
  const most = [...ranks]
    .sort((a, b) => b - a)
    .slice(0, size)
    .reduce((sum, rank) => sum + rank, 0);
  const ways = Array.from({ length: size + 1 }, () => new Float64Array(most + 1));
  ways[0]![0] = 1;
  for (const rank of ranks)
    for (let chosen = size; chosen >= 1; chosen -= 1) {
      const [from, to] = [ways[chosen - 1]!, ways[chosen]!];
      for (let sum = most; sum >= rank; sum -= 1) to[sum]! += from[sum - rank]!;
    }
  return ways[size]!;
}

/** The sums of drawn choices of `size` of the ranks, in doubled ranks, in their order. */
function drawn(ranks: readonly number[], size: number, random: RandomSource): Float64Array {
  const all = [...ranks];
  return Float64Array.from({ length: DRAWS }, () => {
    let sum = 0;
    for (let at = 0; at < size; at += 1) {
      const other = at + Math.floor(random() * (all.length - at));
      [all[at], all[other]] = [all[other]!, all[at]!];
      sum += all[at]!;
    }
    return sum;
  }).sort();
}

/** How many of sorted values are below a limit. */
function countBelow(sorted: Float64Array, limit: number): number {
  let [from, to] = [0, sorted.length];
  while (from < to) {
    const middle = (from + to) >> 1;
    if (sorted[middle]! < limit) from = middle + 1;
    else to = middle;
  }
  return from;
}

/** P(sum < limit) of a choice of `size` of the ranks, in doubled ranks. */
function belowOf(ranks: readonly number[], size: number, random: RandomSource): (limit: number) => number {
  if (ranks.length * size * ranks.length * (ranks.length + 1) > MOST_STEPS) {
    const sums = drawn(ranks, size, random);
    return (limit) => countBelow(sums, limit) / DRAWS;
  }
  const counts = countedOut(ranks, size);
  const below = new Float64Array(counts.length + 1);
  counts.forEach((count, sum) => (below[sum + 1] = below[sum]! + count));
  const all = below[counts.length]!;
  return (limit) => below[Math.max(0, Math.min(counts.length, limit))]! / all;
}

/**
 * Distribution of U = number of pairs in which a value of the second group is the greater (ties count a half), over all
 * arrangements of the pooled values: exact, ties and all, while it can be counted out; else 20 000 seeded draws.
 * `size`: of the second group. Source: Hollander and Wolfe, Nonparametric Statistical Methods, chapter 4.
 */
export function rankDistribution(pooled: readonly number[], size: number, random: RandomSource): RankDistribution {
  const ranks = doubledMidRanks(pooled);
  // Without ties only the two sizes matter.
  const untied = ranks.every((rank) => rank % 2 === 0) && new Set(ranks).size === ranks.length;
  const key = untied ? `${pooled.length} ${size}` : null;
  const known = key === null ? undefined : UNTIED.get(key);
  if (known !== undefined) return known;
  const made = distributionOf(ranks, size, random);
  if (key !== null && UNTIED.size < MOST_KEPT) UNTIED.set(key, made);
  return made;
}

/** Whichever group is the smaller one is chosen: what the other one's ranks sum up to is the rest. */
function distributionOf(ranks: readonly number[], size: number, random: RandomSource): RankDistribution {
  const rest = ranks.length - size;
  const total = ranks.length * (ranks.length + 1);
  const below = belowOf(ranks, Math.min(size, rest), random);
  const [sumBelow, sumAbove] =
    size <= rest
      ? [below, (sum: number) => 1 - below(sum + 1)]
      : [(sum: number) => 1 - below(total - sum + 1), (sum: number) => below(total - sum)];
  const sumOf = (u: number) => 2 * u + size * (size + 1);
  return {
    atMost: (u) => sumBelow(Math.floor(sumOf(u) + 1e-9) + 1),
    atLeast: (u) => sumAbove(Math.ceil(sumOf(u) - 1e-9) - 1),
  };
}
