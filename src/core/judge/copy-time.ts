import { percentile } from '../stats/percentile';

/** Headers and acknowledgements of the copying program, as a factor on the payload. */
const OVERHEAD = 1.03;
/** Rates of one connection are known from so many runs on. */
const ENOUGH_SINGLE = 1;

export interface CopyTime {
  readonly usualSeconds: number;
  /** In a bad hour: at the median of the hours that are slow, where there are such; else at the 10th percentile of all. */
  readonly badSeconds: number;
}

const secondsFor = (sizeBytes: number, rateBps: number) => ((sizeBytes * 8) / rateBps) * OVERHEAD;

/**
 * How long `sizeBytes` take at rates in bits per second: size × 8 / rate × 1.03, at the median, and in a bad hour.
 * `badBps`: what it is then, where that is known; else the 10th percentile. Null without rates. Example: 100 GB at
 * 500 Mb/s: 1648 s.
 */
export function copyTime(
  sizeBytes: number,
  ratesBps: readonly number[],
  badBps: number | null = null,
): CopyTime | null {
  const usual = percentile(ratesBps, 0.5);
  const bad = badBps ?? percentile(ratesBps, 0.1);
  if (usual === null || bad === null || usual <= 0 || bad <= 0) return null;
  return { usualSeconds: secondsFor(sizeBytes, usual), badSeconds: secondsFor(sizeBytes, bad) };
}

/** The rates by which a copy is reckoned. */
export interface CopyRates {
  readonly ratesBps: readonly number[];
  /** One copy is one connection: whether these were measured with one. */
  readonly single: boolean;
  /** What it comes to in the hours that are slow, bits per second; null: no hours are. */
  readonly badBps: number | null;
}

/** What is left of rates where a store at the other end gives or takes only so much, bits per second; null: it is not known. */
export function throughStore({ ratesBps, badBps, ...rest }: CopyRates, storeBps: number | null): CopyRates {
  const most = storeBps ?? Infinity;
  return {
    ...rest,
    ratesBps: ratesBps.map((bps) => Math.min(bps, most)),
    badBps: badBps === null ? null : Math.min(badBps, most),
  };
}

/** Rates of one connection where there are any; those of several, which may be more than one copy gets, where not. */
export function copyRates(
  singleBps: readonly number[],
  severalBps: readonly number[],
  slow: { readonly bps: number; readonly elseBps: number } | null,
): CopyRates {
  const single = singleBps.length >= ENOUGH_SINGLE;
  const ratesBps = single ? singleBps : severalBps;
  const usual = percentile(ratesBps, 0.5);
  // The hours are told by the many runs; one connection suffers in them by the same share.
  const badBps = slow === null || usual === null ? null : usual * (slow.bps / slow.elseBps);
  return { ratesBps, single, badBps };
}
