/**
 * Payload bytes counted where they arrive, sampled about every 50 ms.
 * Shapes: `atMs` [T], non-decreasing, monotonic ms; `bytes` [stream][T], cumulative, non-decreasing.
 * Both are raw: nothing is smoothed or discarded before it is kept.
 */
export interface CounterSeries {
  readonly atMs: readonly number[];
  readonly bytes: readonly (readonly number[])[];
}

/** Sum over the streams at each sample time: bytes, shape [T]. */
export function totalBytes(series: CounterSeries): number[] {
  return series.atMs.map((_, index) => series.bytes.reduce((sum, stream) => sum + (stream[index] ?? 0), 0));
}

/** Last value of the summed counter in bytes; null when nothing was sampled. */
export function finalBytes(series: CounterSeries | null): number | null {
  if (series === null || series.atMs.length === 0) return null;
  return totalBytes(series).at(-1) ?? null;
}
