/** Twice the mid-ranks of values, so that they are whole numbers. [10, 20, 20] → [2, 5, 5]. */
export function doubledMidRanks(values: readonly number[]): number[] {
  const order = values.map((_, index) => index).sort((a, b) => values[a]! - values[b]!);
  const ranks = values.map(() => 0);
  for (let from = 0; from < order.length;) {
    let to = from;
    while (to < order.length && values[order[to]!] === values[order[from]!]) to += 1;
    // Ranks from + 1 … to have the mean (from + 1 + to) / 2.
    for (let at = from; at < to; at += 1) ranks[order[at]!] = from + 1 + to;
    from = to;
  }
  return ranks;
}
