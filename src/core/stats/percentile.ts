/**
 * Percentile by linear interpolation between order statistics (type 7, the usual default of statistics packages).
 * `values` in any order and unit; `share` in 0..1. Empty input gives null.
 * Example: percentile([10, 20, 30, 40], 0.5) = 25.
 */
export function percentile(values: readonly number[], share: number): number | null {
  if (values.length === 0) return null;
  const sorted = new Float64Array(values).sort();
  const position = (sorted.length - 1) * share;
  const below = Math.floor(position);
  const low = sorted[below]!;
  const high = sorted[Math.min(below + 1, sorted.length - 1)]!;
  return low + (high - low) * (position - below);
}

/** The 50th percentile (type 7); null for no values. */
export function median(values: readonly number[]): number | null {
  return percentile(values, 0.5);
}
