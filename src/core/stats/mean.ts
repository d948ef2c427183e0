/** Arithmetic mean; null for no values. */
export function mean(values: readonly number[]): number | null {
  if (values.length === 0) return null;
  return values.reduce((sum, value) => sum + value, 0) / values.length;
}

/**
 * Interquartile mean: the mean of the middle half, with the two samples at its edges weighted by the part that lies
 * inside. Robust against bursts and stalls. Null for no values.
 * Example: interquartileMean([1, 2, 3, 4, 5, 6, 7, 8, 100]) = 5 (weights 0.75 for 3 and 7, 1 for 4, 5 and 6).
 */
export function interquartileMean(values: readonly number[]): number | null {
  const count = values.length;
  if (count === 0) return null;
  const sorted = new Float64Array(values).sort();
  const from = count / 4;
  const to = count - from;
  let sum = 0;
  for (let index = Math.floor(from); index < Math.ceil(to); index += 1) {
    const inside = Math.min(index + 1, to) - Math.max(index, from);
    sum += sorted[index]! * inside;
  }
  return sum / (to - from);
}

/** Means of each `span` neighbours, one for every place where so many follow. Example: ([1, 3, 5], 2) → [2, 4]. */
export function movingMeans(values: readonly number[], span: number): number[] {
  if (span <= 1) return [...values];
  let sum = values.slice(0, span).reduce((all, value) => all + value, 0);
  const means: number[] = [];
  for (let from = 0; from + span <= values.length; from += 1) {
    if (from > 0) sum += values[from + span - 1]! - values[from - 1]!;
    means.push(sum / span);
  }
  return means;
}
