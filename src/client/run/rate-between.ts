import { bytesAt, totalBytes } from '@/core';
import type { SeriesLog } from './run-state';

/** Mean rate of a series between two times on its clock, bits per second; null when it does not reach that far. */
export function rateBetween(series: SeriesLog | null, fromMs: number, toMs: number): number | null {
  const [first, last] = [series?.atMs[0], series?.atMs.at(-1)];
  if (series === null || first === undefined || last === undefined || first > fromMs || last < toMs) return null;
  const total = totalBytes(series);
  return ((bytesAt(series.atMs, total, toMs) - bytesAt(series.atMs, total, fromMs)) * 8000) / (toMs - fromMs);
}
