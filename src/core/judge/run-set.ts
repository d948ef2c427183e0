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
/** Iglewicz and Hoaglin (1993): a modified z-score beyond this is an outlier. */
const ODD_SCORE = 3.5;
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

/** How far from the median a run must lie to be odd; null where that cannot be told. */
function oddBeyond(
  values: readonly number[],
  centre: number,
  quantity: SetQuantity,
  usual: UsualRanges,
): number | null {
  const least = quantity === 'rate' ? LEAST_ODD.share * Math.abs(centre) : LEAST_ODD.ms;
  if (values.length >= ENOUGH_FOR_ODD)
    return Math.max(least, (ODD_SCORE * absoluteDeviation(values, centre)) / NORMAL_QUANTILE);
  if (values.length < 3 || usual.length < ENOUGH_SETS) return null;
  return Math.max(least, ODD_RANGES * median(usual)!);
}

/**
 * Null for no runs. Example: [486, 485, 310] → median 485, range 176, and none odd: three runs alone cannot say which of
 * them is. With five and more a run is odd over 3.5 modified z-scores and 5 % or 5 ms from the median; three or four are
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
