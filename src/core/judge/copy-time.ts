import { percentile } from '../stats/percentile';

/** Headers and acknowledgements of the copying program, as a factor on the payload. */
const OVERHEAD = 1.03;

export interface CopyTime {
  readonly usualSeconds: number;
  /** At the 10th percentile of the rates: a bad hour. */
  readonly badSeconds: number;
}

/**
 * How long `sizeBytes` take at rates in bits per second: size × 8 / rate × 1.03, at the median and the 10th percentile.
 * Null without rates. Example: 100 GB at 500 Mb/s: 1648 s.
 */
export function copyTime(sizeBytes: number, ratesBps: readonly number[]): CopyTime | null {
  const usual = percentile(ratesBps, 0.5);
  const bad = percentile(ratesBps, 0.1);
  if (usual === null || bad === null || usual <= 0 || bad <= 0) return null;
  const seconds = (rateBps: number) => ((sizeBytes * 8) / rateBps) * OVERHEAD;
  return { usualSeconds: seconds(usual), badSeconds: seconds(bad) };
}
