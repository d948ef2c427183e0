import { median } from '../../stats/percentile';

/** A stretch of neighbouring bins at one level. Indices [from, to); `bps` is its median, bits per second. */
export interface Level {
  readonly from: number;
  readonly to: number;
  readonly bps: number;
}

export interface LevelRules {
  /** Bins that a level has at least. */
  readonly leastBins: number;
  /** Two levels differ by more than this share of the higher one. */
  readonly differBy: number;
  /** A change is one only where it explains this share of what the bins lie from their median. */
  readonly explains: number;
}

/**
 * In bins of 100 ms: a level lasts a second at least. A sawtooth of TCP and a stall of 200 ms are no change of level, nor is
 * an even drift, of which two levels explain exactly half.
 */
export const LEVEL_RULES: LevelRules = { leastBins: 10, differBy: 0.1, explains: 0.65 };

function deviation(values: readonly number[]): { readonly middle: number; readonly sum: number } {
  const middle = median(values)!;
  return { middle, sum: values.reduce((all, value) => all + Math.abs(value - middle), 0) };
}

/** Where one stretch is best told as two, or null where two would not be two levels. */
function bestSplit(bps: readonly number[], { leastBins, differBy, explains }: LevelRules): number | null {
  const whole = deviation(bps);
  let best: { at: number; left: number } | null = null;
  for (let at = leastBins; at <= bps.length - leastBins; at += 1) {
    const left = deviation(bps.slice(0, at)).sum + deviation(bps.slice(at)).sum;
    if (best === null || left < best.left) best = { at, left };
  }
  if (best === null || whole.sum - best.left < explains * whole.sum) return null;
  const [before, after] = [deviation(bps.slice(0, best.at)).middle, deviation(bps.slice(best.at)).middle];
  return Math.abs(before - after) > differBy * Math.max(before, after) ? best.at : null;
}

/**
 * The levels in a series of rates, by splitting at the change that explains most (binary segmentation by the sum of
 * absolute deviations from the median, which a few stalls do not move) as long as there is one. One level where nothing
 * changed; none for no bins. Example: twenty bins at 200 and thirty at 60 → two levels.
 */
export function levelsOf(bps: readonly number[], rules: LevelRules = LEVEL_RULES): Level[] {
  const split = (from: number, to: number): Level[] => {
    const part = bps.slice(from, to);
    const at = part.length < 2 * rules.leastBins ? null : bestSplit(part, rules);
    if (at === null) return [{ from, to, bps: median(part)! }];
    return [...split(from, from + at), ...split(from + at, to)];
  };
  return bps.length === 0 ? [] : split(0, bps.length);
}
