/** Probability beyond z on both sides of the standard normal distribution (Abramowitz & Stegun 26.2.17, error below 1e-7). */
function twoSided(z: number): number {
  const x = Math.abs(z);
  const t = 1 / (1 + 0.2316419 * x);
  const series = t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return Math.min(1, 2 * (Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI)) * series);
}

/** U of the first group, and its variance where both are alike, with correction for ties (Hollander & Wolfe, ch. 4). */
function rankSums(a: readonly number[], b: readonly number[]): { readonly u: number; readonly variance: number } {
  const all = [...a.map((value) => ({ value, first: true })), ...b.map((value) => ({ value, first: false }))].sort(
    (one, other) => one.value - other.value,
  );
  const total = all.length;
  let rankSum = 0;
  let ties = 0;
  for (let from = 0; from < total;) {
    let to = from;
    while (to + 1 < total && all[to + 1]!.value === all[from]!.value) to += 1;
    const size = to - from + 1;
    ties += size ** 3 - size;
    for (let place = from; place <= to; place += 1) if (all[place]!.first) rankSum += (from + to) / 2 + 1;
    from = to + 1;
  }
  const [n, m] = [a.length, b.length];
  return {
    u: rankSum - (n * (n + 1)) / 2,
    variance: ((n * m) / 12) * (total + 1 - ties / (total * (total - 1))),
  };
}

/** Standard deviation of U where both groups are alike. */
export const rankSumSpread = (a: readonly number[], b: readonly number[]): number => Math.sqrt(rankSums(a, b).variance);

/**
 * p of the two-sided rank-sum test of Mann and Whitney by its normal approximation, with correction for ties and for
 * continuity (Hollander & Wolfe, ch. 4): for groups too large to be counted out, ten and more together with the other.
 */
export function rankSumP(a: readonly number[], b: readonly number[]): number {
  const { u, variance } = rankSums(a, b);
  if (variance <= 0) return 1;
  const off = Math.max(0, Math.abs(u - (a.length * b.length) / 2) - 0.5);
  return twoSided(off / Math.sqrt(variance));
}
