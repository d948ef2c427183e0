import { median } from '../stats/percentile';

/** Runs repeated under the same conditions: their median is the figure. Same unit as the values. */
export interface RunSet {
  readonly count: number;
  readonly median: number;
  /** Range of up to three runs, else the median absolute deviation. */
  readonly spread: number;
  readonly spreadKind: 'range' | 'median-absolute-deviation';
  /** Indices of runs more than three robust deviations from the rest; kept, and shown as odd. */
  readonly odd: readonly number[];
}

/** Makes the median absolute deviation of a normal distribution its standard deviation. */
const NORMAL_CONSISTENCY = 1.4826;
const ODD_DEVIATIONS = 3;
/** Runs that agree to the last digit must not make a hair's breadth odd: least deviation as a share of the median. */
const LEAST_DEVIATION_SHARE = 0.005;

function absoluteDeviation(values: readonly number[], centre: number): number {
  return median(values.map((value) => Math.abs(value - centre)))!;
}

/**
 * Null for no runs. Example: [486, 485, 310] → median 485, range 176, the third odd (the others lie within 1 of 485.5).
 * A run is held against the others alone, so that it cannot hide itself in the spread.
 */
export function summarizeSet(values: readonly number[]): RunSet | null {
  const centre = median(values);
  if (centre === null) return null;
  const few = values.length <= 3;
  const range = Math.max(...values) - Math.min(...values);
  const odd = values.flatMap((value, index) => {
    const others = values.filter((_, other) => other !== index);
    if (others.length < 2) return [];
    const middle = median(others)!;
    const deviation = Math.max(
      NORMAL_CONSISTENCY * absoluteDeviation(others, middle),
      LEAST_DEVIATION_SHARE * Math.abs(middle),
    );
    return Math.abs(value - middle) > ODD_DEVIATIONS * deviation ? [index] : [];
  });
  return {
    count: values.length,
    median: centre,
    spread: few ? range : absoluteDeviation(values, centre),
    spreadKind: few ? 'range' : 'median-absolute-deviation',
    // When every run is odd to the others, none of them is the odd one.
    odd: odd.length > values.length / 2 ? [] : odd,
  };
}
