import { median } from '../stats/percentile';
import { rateBins } from '../measure/rate/rate-bins';
import type { CounterSeries } from '../measure/rate/counter-series';

/** One of several runs that were started together. Series on one clock for all of them, ms; null: not measured. */
export interface SharingRun {
  readonly down: CounterSeries | null;
  readonly up: CounterSeries | null;
  /** Counted part of each direction on that clock. */
  readonly countedDown: { readonly fromMs: number; readonly toMs: number } | null;
  readonly countedUp: { readonly fromMs: number; readonly toMs: number } | null;
  readonly addedMs: number | null;
}

/** What one direction gave to all of them while all of them pulled. Bits per second. */
export interface SharedDirection {
  /** In the order of the runs. */
  readonly eachBps: readonly number[];
  readonly sumBps: number;
  /** Jain's index (Jain, Chiu and Hawe 1984): (Σx)² / (n Σx²); 1 when all got the same, 1/n when one got all. */
  readonly fairness: number;
  readonly overMs: number;
}

export interface TogetherShare {
  readonly down: SharedDirection | null;
  readonly up: SharedDirection | null;
  /** The delay that all of them saw: the median of what each run's load added, ms. */
  readonly addedMs: number | null;
}

const BIN_MS = 100;
const LEAST_OVERLAP_MS = 1000;

/** Jain's index of fairness. Example: [1, 1, 1] → 1; [3, 0, 0] → 1/3. Null for nothing. */
export function fairnessOf(rates: readonly number[]): number | null {
  const squares = rates.reduce((sum, rate) => sum + rate * rate, 0);
  const sum = rates.reduce((all, rate) => all + rate, 0);
  return squares === 0 ? null : (sum * sum) / (rates.length * squares);
}

function shared(runs: readonly SharingRun[], way: 'down' | 'up'): SharedDirection | null {
  const counted = runs.map((run) => (way === 'down' ? run.countedDown : run.countedUp));
  const series = runs.map((run) => run[way]);
  if (counted.includes(null) || series.includes(null)) return null;
  const fromMs = Math.max(...counted.map((span) => span!.fromMs));
  const toMs = Math.min(...counted.map((span) => span!.toMs));
  if (!(toMs - fromMs >= LEAST_OVERLAP_MS)) return null;
  const eachBps = series.map((one) => {
    const { bps } = rateBins(one!, BIN_MS, fromMs, toMs);
    return bps.reduce((sum, rate) => sum + rate, 0) / Math.max(1, bps.length);
  });
  const fairness = fairnessOf(eachBps);
  if (fairness === null) return null;
  return { eachBps, sumBps: eachBps.reduce((sum, rate) => sum + rate, 0), fairness, overMs: toMs - fromMs };
}

/**
 * What runs that were started together got of what they shared, over the time in which all of them were being counted.
 * A direction is null while one of them lacks it, or they did not pull at the same time for a second.
 */
export function togetherShareOf(runs: readonly SharingRun[]): TogetherShare | null {
  if (runs.length < 2) return null;
  return {
    down: shared(runs, 'down'),
    up: shared(runs, 'up'),
    addedMs: median(runs.flatMap(({ addedMs }) => addedMs ?? [])),
  };
}
