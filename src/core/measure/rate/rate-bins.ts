import { totalBytes, type CounterSeries } from './counter-series';

/** Rates over consecutive windows of equal length. `atMs` is each window's start, `bps` its mean rate in bits per second. */
export interface RateBins {
  readonly binMs: number;
  readonly atMs: readonly number[];
  readonly bps: readonly number[];
}

/** Cumulative bytes at any time inside the series, by linear interpolation between the two samples around it. */
export function bytesAt(atMs: readonly number[], cumulative: readonly number[], timeMs: number): number {
  let low = 0;
  let high = atMs.length - 1;
  if (timeMs <= atMs[low]!) return cumulative[low]!;
  if (timeMs >= atMs[high]!) return cumulative[high]!;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (atMs[middle]! <= timeMs) low = middle;
    else high = middle;
  }
  const span = atMs[high]! - atMs[low]!;
  if (span === 0) return cumulative[high]!;
  return cumulative[low]! + ((cumulative[high]! - cumulative[low]!) * (timeMs - atMs[low]!)) / span;
}

/**
 * Mean rates of the summed counter over windows of `binMs` from `fromMs` to the last sample (or `toMs`).
 * A last, incomplete window is left out. No samples, or less than one window: empty bins.
 */
export function rateBins(series: CounterSeries, binMs: number, fromMs: number, toMs = Infinity): RateBins {
  const starts: number[] = [];
  const bps: number[] = [];
  const first = series.atMs[0];
  const last = series.atMs.at(-1);
  if (first === undefined || last === undefined) return { binMs, atMs: starts, bps };
  const cumulative = totalBytes(series);
  const end = Math.min(last, toMs);
  const begin = Math.max(first, fromMs);
  for (let index = 0; begin + (index + 1) * binMs <= end + 1e-6; index += 1) {
    const start = begin + index * binMs;
    const bytes = bytesAt(series.atMs, cumulative, start + binMs) - bytesAt(series.atMs, cumulative, start);
    starts.push(start);
    bps.push((bytes * 8000) / binMs);
  }
  return { binMs, atMs: starts, bps };
}
