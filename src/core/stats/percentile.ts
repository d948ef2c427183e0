/**
 * Percentile by linear interpolation between order statistics (type 7, the usual default of statistics packages).
 * `values` in any order and unit; `share` in 0..1. Empty input gives null.
 * Example: percentile([10, 20, 30, 40], 0.5) = 25.
 */
export function percentile(values: readonly number[], share: number): number | null {
  return percentileOfSorted(new Float64Array(values).sort(), share);
}

/** The same of values in their order, the least first. */
export function percentileOfSorted(sorted: ArrayLike<number>, share: number): number | null {
  if (sorted.length === 0) return null;
  const position = (sorted.length - 1) * share;
  const below = Math.floor(position);
  const low = sorted[below]!;
  const high = sorted[Math.min(below + 1, sorted.length - 1)]!;
  return low + (high - low) * (position - below);
}

const between = (low: number, high: number) => low + (high - low) / 2;

/** The 50th percentile (type 7); null for no values. Most are of a run or of three, and nothing is made for those. */
export function median(values: readonly number[]): number | null {
  const [first, second, third] = values;
  if (values.length === 1) return first!;
  if (values.length === 2) return first! <= second! ? between(first!, second!) : between(second!, first!);
  if (values.length === 3) return Math.max(Math.min(first!, second!), Math.min(Math.max(first!, second!), third!));
  return percentile(values, 0.5);
}
