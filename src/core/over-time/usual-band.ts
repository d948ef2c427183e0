import { percentile } from '../stats/percentile';
import { LEAST_TOLD, type SeriesKind } from './timed-occasion';

/** Between which values an occasion is as usual, from those before it. */
export interface UsualBand {
  readonly low: number;
  readonly median: number;
  readonly high: number;
}

/** How an occasion stands to those before it. */
export interface Unusual {
  readonly is: 'low' | 'high';
  /** Of all occasions before it, how many were as low (or as high) or more so: 0 of 40 is the lowest ever. */
  readonly asFar: number;
  readonly of: number;
}

const LEAST_BEFORE = 8;
const MOST_BEFORE = 30;
/** Median to quartile of the normal distribution, in standard deviations. */
const NORMAL_QUARTILE = 0.6745;
/**
 * In robust standard deviations, so that of plain noise, even or skewed or of two humps, at most 1 in 20 lies outside:
 * simulated for 8 to 30 values before it, of which few know their own spread badly (`npm run prove-statistics`).
 */
const WIDE = { always: 3.3, fewMore: 15 } as const;
/** A side on which the values happen to lie close together is taken for so much of the other. */
const LEAST_OF_OTHER_SIDE = 0.7;

/**
 * The band of what is usual after these values, the oldest first: median of the last 30 and their spread on either side,
 * each for itself (delays are skewed), from the quartiles; never narrower than 5 %, 5 ms or half a percentage point. Null
 * with fewer than eight.
 */
export function usualBandOf(before: readonly number[], kind: SeriesKind): UsualBand | null {
  const last = before.slice(-MOST_BEFORE);
  if (last.length < LEAST_BEFORE) return null;
  const [quarter, middle, threeQuarters] = [0.25, 0.5, 0.75].map((share) => percentile(last, share)!) as [
    ...[number, number, number],
  ];
  const [below, above] = [middle - quarter, threeQuarters - middle];
  const wide = (WIDE.always + WIDE.fewMore / last.length) / NORMAL_QUARTILE;
  const least = kind === 'rate' ? LEAST_TOLD.rate * middle : LEAST_TOLD[kind];
  return {
    low: Math.max(0, middle - Math.max(least, wide * Math.max(below, LEAST_OF_OTHER_SIDE * above))),
    median: middle,
    high: middle + Math.max(least, wide * Math.max(above, LEAST_OF_OTHER_SIDE * below)),
  };
}

/** The band before each value; null where too little came before. */
export function usualBands(values: readonly number[], kind: SeriesKind): (UsualBand | null)[] {
  return values.map((_, place) => usualBandOf(values.slice(Math.max(0, place - MOST_BEFORE), place), kind));
}

/** Whether a value lies outside what is usual after those before it, and how rare that is; null: it does not, or none can tell. */
export function unusualAfter(before: readonly number[], value: number, kind: SeriesKind): Unusual | null {
  const band = usualBandOf(before, kind);
  if (band === null || (value >= band.low && value <= band.high)) return null;
  const is = value < band.low ? 'low' : 'high';
  const asFar = before.filter((other) => (is === 'low' ? other <= value : other >= value)).length;
  return { is, asFar, of: before.length };
}
