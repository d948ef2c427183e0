import { interquartileMean, mean, movingMeans } from '../../stats/mean';
import { median, percentile } from '../../stats/percentile';
import { LEVEL_RULES, levelsOf, type Level } from './levels';
import type { RateBins } from './rate-bins';
import { isSettled, lastMeanBps, type SteadyRules } from './steady-part';

/** Why a figure is not settled. */
export const UNSETTLED_CAUSES = ['drifting', 'changed-level', 'too-short', 'too-few-windows'] as const;
export type UnsettledCause = (typeof UNSETTLED_CAUSES)[number];

/** A level that the line held before the last one: how much, for how long, and when it began. Same clock as the series. */
export interface EarlierLevel {
  readonly bps: number;
  readonly fromMs: number;
  readonly toMs: number;
}

export const RATE_BIN_MS = 100;
/** Fewer make no figure. */
export const LEAST_BINS = 5;
/** A window holds at least so many full packets: then one more or less at its edges is below 0.4 % of it. */
const WINDOW_BYTES = 256 * 1448;
const LONGEST_WINDOW_BINS = 10;
/** Where a tenth of the windows lies further above the middle than this and a tenth as far below, bytes come in lumps. */
const LUMPY_BEYOND = 0.04;
/** A figure that is further than this from what the line settled at is not the line's. */
const SETTLED_WITHIN = 0.03;
/** Steady rate and plain mean further apart than this are a range. */
const ONE_FIGURE_WITHIN = 0.1;
/** A level that was held for so long is what the line gives now, ms; less of it says only that something changed. */
const LEVEL_HELD_MS = 3000;
/** Around a change of level so much belongs to neither, bins. */
const EDGE_BINS = 2;
const GAP_BELOW = 0.1;

/** What counted bins come to. Rates in bits per second. */
export interface LevelFigure {
  /** The bins of the level that the figure is of. */
  readonly bins: RateBins;
  readonly earlier: readonly EarlierLevel[];
  /** Interquartile mean over windows of so many bins. */
  readonly steadyBps: number;
  readonly perWindow: number;
  readonly meanBps: number;
  /** Why the figure is not the line's, as far as its bins say; null: it is. */
  readonly unsettledBy: Exclude<UnsettledCause, 'too-short'> | null;
}

/** How many bins make a window at this rate: one on lines of 30 Mb/s and more, up to a second on slow ones. */
function windowBins(rateBps: number, bins: number): number {
  const wanted = Math.ceil((WINDOW_BYTES * 8000) / rateBps / RATE_BIN_MS);
  // Three windows side by side at least: fewer would leave nothing to leave out.
  return Math.max(1, Math.min(wanted, LONGEST_WINDOW_BINS, Math.floor(bins / 3)));
}

export const areApart = (steadyBps: number, meanBps: number) =>
  Math.abs(meanBps - steadyBps) > ONE_FIGURE_WITHIN * Math.max(meanBps, steadyBps);

/** What a line loses in a dip does not come afterwards: dips alone are no lumps. */
function comesInLumps(windows: readonly number[]): boolean {
  const middle = median(windows)!;
  return (
    percentile(windows, 0.9)! > (1 + LUMPY_BEYOND) * middle && percentile(windows, 0.1)! < (1 - LUMPY_BEYOND) * middle
  );
}

/**
 * Rates of the windows: of twice the length, and twice again, while bytes come in lumps. What one browser hands on late comes
 * with the next read: neighbours cancel each other out, and the middle half of short windows would be a draw of lots.
 */
function windowsOf(bps: readonly number[], meanBps: number): { readonly windows: number[]; readonly bins: number } {
  let bins = windowBins(meanBps, bps.length);
  let windows = movingMeans(bps, bins);
  // A line of which no figure can be told is not smoothed into one.
  const longest = areApart(interquartileMean(windows)!, meanBps)
    ? 0
    : Math.min(LONGEST_WINDOW_BINS, Math.floor(bps.length / 3));
  while (2 * bins <= longest && comesInLumps(windows)) {
    bins *= 2;
    windows = movingMeans(bps, bins);
  }
  return { windows, bins };
}

const alike = (one: Level, other: Level) =>
  Math.abs(one.bps - other.bps) <= LEVEL_RULES.differBy * Math.max(one.bps, other.bps);

/**
 * The part of the counted bins that the figure is made of: from the first level that is like the last one that was held
 * for three seconds in all. A line that comes back to its level after a gap has not changed level: the gap is a dip.
 * `held`: whether nothing came after it.
 */
function lastLevel(bins: RateBins): {
  readonly last: RateBins;
  readonly earlier: readonly EarlierLevel[];
  readonly held: boolean;
} {
  const levels = levelsOf(bins.bps);
  const heldMs = (level: Level) =>
    levels.filter((other) => alike(level, other)).reduce((sum, { from, to }) => sum + (to - from), 0) * RATE_BIN_MS;
  const chosen = levels.findLast((level) => heldMs(level) >= LEVEL_HELD_MS);
  // Nothing was held: all that was counted stands, and it is said.
  if (chosen === undefined) return { last: bins, earlier: [], held: levels.length === 1 };
  // Next to nothing is no level of a line but a gap.
  const gap = (level: Level) => level.bps < GAP_BELOW * chosen.bps;
  const first = levels.findIndex((level) => alike(level, chosen) || gap(level));
  const start = levels[first]!;
  const from = first === 0 ? 0 : Math.min(start.from + EDGE_BINS, start.to - LEAST_BINS);
  return {
    last: { ...bins, atMs: bins.atMs.slice(from), bps: bins.bps.slice(from) },
    earlier: levels.slice(0, first).map(({ from: begin, to, bps }) => ({
      ...{ bps, fromMs: bins.atMs[begin]!, toMs: bins.atMs[to - 1]! + RATE_BIN_MS },
    })),
    held: alike(chosen, levels.at(-1)!),
  };
}

/** The figure of counted bins, and whether the line had settled at it; null: too few of them, or nothing came. */
export function figureOf(counted: RateBins, rules: SteadyRules): LevelFigure | null {
  if (counted.bps.length < LEAST_BINS) return null;
  const { last: bins, earlier, held } = lastLevel(counted);
  const meanBps = mean(bins.bps)!;
  if (meanBps <= 0) return null;
  const { windows, bins: perWindow } = windowsOf(bins.bps, meanBps);
  const steadyBps = interquartileMean(windows)!;
  if (steadyBps <= 0) return null;
  const lastBps = lastMeanBps(bins.bps, RATE_BIN_MS, rules);
  const cause = (): LevelFigure['unsettledBy'] => {
    if (!held) return 'changed-level';
    if (lastBps === null) return 'too-few-windows';
    if (!isSettled(bins.bps, RATE_BIN_MS, rules)) return 'drifting';
    // More arrived than the steady rate tells: the line was faster before, and changed.
    const changed =
      Math.abs(lastBps - steadyBps) > SETTLED_WITHIN * steadyBps || meanBps > (1 + SETTLED_WITHIN) * steadyBps;
    return changed ? 'changed-level' : null;
  };
  return { bins, earlier, steadyBps, perWindow, meanBps, unsettledBy: cause() };
}
