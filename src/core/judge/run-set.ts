import { median } from '../stats/percentile';

/** Runs repeated under the same conditions: their median is the figure. Same unit as the values. */
export interface RunSet {
  readonly count: number;
  readonly median: number;
  /** Range of up to four runs, else the median absolute deviation. */
  readonly spread: number;
  readonly spreadKind: 'range' | 'median-absolute-deviation';
  /** Indices of runs that are odd beside the others; kept, and shown as odd. */
  readonly odd: readonly number[];
}

/** From so many runs on, they say themselves which of them is odd. */
const ENOUGH_FOR_ODD = 5;
/**
 * By the number of runs: the modified z-score (Iglewicz and Hoaglin 1993) that the furthest of so many keeps below in 96 of
 * 100 sets of normal noise, by simulation. Their own limit of 3.5 calls one odd in a fifth of all sets of five, for the
 * median deviation of a few values is small by chance.
 */
const ODD_SCORES: readonly (readonly [count: number, score: number])[] = [
  ...([
    [5, 8.9],
    [6, 6.02],
    [7, 6.45],
    [8, 5.26],
    [9, 5.41],
    [10, 4.85],
    [11, 4.98],
    [12, 4.61],
  ] as const),
  ...([
    [13, 4.68],
    [15, 4.53],
    [20, 4.15],
    [25, 4.09],
    [30, 3.98],
    [40, 3.91],
    [500, 4.03],
    [1000, 4.15],
  ] as const),
];
const NORMAL_QUANTILE = 0.6745;
/** Nothing nearer to the median than this is odd: a share of it for rates, ms for delays. */
const LEAST_ODD = { share: 0.05, ms: 5 } as const;
/** Fewer runs are held against the usual range of such sets: further from their median than so many of it is odd. */
const ODD_RANGES = 2;
/** What is usual is known from so many sets on. */
export const ENOUGH_SETS = 5;

/** How far the runs of earlier sets of the same device, link and reach lay apart: their ranges, same unit. */
export type UsualRanges = readonly number[];

export type SetQuantity = 'rate' | 'delay';

function absoluteDeviation(values: readonly number[], centre: number): number {
  return median(values.map((value) => Math.abs(value - centre)))!;
}

const oddScore = (count: number) => ODD_SCORES.findLast(([from]) => count >= from)![1];

/** How far from the median a run must lie to be odd; null where that cannot be told. */
function oddBeyond(
  values: readonly number[],
  centre: number,
  quantity: SetQuantity,
  usual: UsualRanges,
): number | null {
  const least = quantity === 'rate' ? LEAST_ODD.share * Math.abs(centre) : LEAST_ODD.ms;
  if (values.length >= ENOUGH_FOR_ODD)
    return Math.max(least, (oddScore(values.length) * absoluteDeviation(values, centre)) / NORMAL_QUANTILE);
  if (values.length < 3 || usual.length < ENOUGH_SETS) return null;
  return Math.max(least, ODD_RANGES * median(usual)!);
}

/**
 * Null for no runs. Example: [486, 485, 310] → median 485, range 176, and none odd: three runs alone cannot say which of
 * them is. With five and more a run is odd when it lies further from the median than one of so many does by chance, and over 5 % or 5 ms; three or four are
 * held against the usual range of the same device's sets.
 */
export function summarizeSet(
  values: readonly number[],
  quantity: SetQuantity = 'rate',
  usual: UsualRanges = [],
): RunSet | null {
  const centre = median(values);
  if (centre === null) return null;
  const few = values.length < ENOUGH_FOR_ODD;
  const range = Math.max(...values) - Math.min(...values);
  const beyond = oddBeyond(values, centre, quantity, usual);
  return {
    count: values.length,
    median: centre,
    spread: few ? range : absoluteDeviation(values, centre),
    spreadKind: few ? 'range' : 'median-absolute-deviation',
    odd: beyond === null ? [] : values.flatMap((value, index) => (Math.abs(value - centre) > beyond ? [index] : [])),
  };
}
