import type { Interval } from '../../stats/block-bootstrap';
import { median } from '../../stats/percentile';
import type { RandomSource } from '../../stats/seeded-random';
import { holmAdjusted } from './holm';
import { canTell, shiftOf } from './shift';

/** One run of a group: its figure, and the set (the occasion) that it belongs to. */
export interface ComparedRun {
  readonly value: number;
  readonly occasion: string;
}

/** Rates are compared as ratios, delays as differences in ms. */
export type ComparedQuantity = 'rate' | 'delay';

/** Whether a difference matters, by its whole interval: beyond ±5 % or ±5 ms, within, or partly. */
export type Matters = 'yes' | 'no' | 'cannot tell yet';

export type GroupComparison =
  | {
      readonly status: 'too-few';
      readonly medianA: number | null;
      readonly medianB: number | null;
      readonly unit: ComparedUnit;
      /** Further runs (or occasions) of the smaller group that would let it be told at all. */
      readonly moreWanted: number;
    }
  | {
      readonly status: 'told';
      readonly medianA: number;
      readonly medianB: number;
      readonly unit: ComparedUnit;
      /** B against A: a ratio for rates (1: the same), ms for delays (0: the same). */
      readonly shift: number;
      readonly interval: Interval;
      readonly p: number;
      readonly real: boolean;
      readonly matters: Matters;
      /** Further runs in each group that should decide whether it matters; null where that is decided. */
      readonly moreWanted: number | null;
    };

/** What was compared: the medians of occasions, or single runs of a few. */
export type ComparedUnit = 'occasions' | 'runs';

export interface ComparisonLimits {
  /** A ratio further from 1 than this matters, and a delay further from 0 than that, ms. */
  readonly share: number;
  readonly ms: number;
}

export const USUAL_LIMITS: ComparisonLimits = { share: 0.05, ms: 5 };
/** From so many occasions in both groups on, these are what is compared. */
const ENOUGH_OCCASIONS = 4;
const MOST_MORE = 200;

function occasionMedians(runs: readonly ComparedRun[]): number[] {
  const occasions = new Map<string, number[]>();
  for (const { value, occasion } of runs) {
    const of = occasions.get(occasion);
    if (of === undefined) occasions.set(occasion, [value]);
    else of.push(value);
  }
  return [...occasions.values()].map((values) => median(values)!);
}

/** Runs of one occasion lie close together: where there are enough occasions, those are compared. */
function compared(a: readonly ComparedRun[], b: readonly ComparedRun[]) {
  const [ofA, ofB] = [occasionMedians(a), occasionMedians(b)];
  if (ofA.length >= ENOUGH_OCCASIONS && ofB.length >= ENOUGH_OCCASIONS)
    return { unit: 'occasions', a: ofA, b: ofB } as const;
  return { unit: 'runs', a: a.map(({ value }) => value), b: b.map(({ value }) => value) } as const;
}

function moreToTell(n: number, m: number): number {
  const [small, large] = [Math.min(n, m), Math.max(n, m)];
  for (let more = 1; more < MOST_MORE; more += 1) if (canTell(small + more, large)) return more;
  return MOST_MORE;
}

/** Where the limits lie on the scale of the comparison: logarithms of ratios, or ms. */
function limitsOf(quantity: ComparedQuantity, { share, ms }: ComparisonLimits): Interval {
  return quantity === 'rate' ? { low: Math.log(1 - share), high: Math.log(1 + share) } : { low: -ms, high: ms };
}

function mattersOf(interval: Interval, limits: Interval): Matters {
  if (interval.low > limits.high || interval.high < limits.low) return 'yes';
  return interval.low > limits.low && interval.high < limits.high ? 'no' : 'cannot tell yet';
}

/** The interval narrows with the square root of the runs: how many more until it no longer reaches over a limit. */
function moreToDecide(estimate: number, interval: Interval, limits: Interval, n: number): number {
  const half = (interval.high - interval.low) / 2;
  const room = Math.min(Math.abs(estimate - limits.low), Math.abs(estimate - limits.high));
  const wanted = room === 0 ? Infinity : n * (half / room) ** 2;
  return Math.max(1, Math.min(MOST_MORE, Math.ceil(wanted - n)));
}

/**
 * Whether group B differs from group A, by how much, and whether that matters. Rates must be above 0. `random` is seeded
 * by the caller, so that the answer can be repeated; it is used only by groups too large to be counted out.
 */
export function compareGroups(
  groupA: readonly ComparedRun[],
  groupB: readonly ComparedRun[],
  quantity: ComparedQuantity,
  random: RandomSource,
  usual: ComparisonLimits = USUAL_LIMITS,
): GroupComparison {
  const { unit, a, b } = compared(groupA, groupB);
  const medians = { medianA: median(a), medianB: median(b) };
  const scale = quantity === 'rate' ? Math.log : (value: number) => value;
  const back = quantity === 'rate' ? Math.exp : (value: number) => value;
  const shift = shiftOf(a.map(scale), b.map(scale), random);
  if (shift === null) return { status: 'too-few', ...medians, unit, moreWanted: moreToTell(a.length, b.length) };
  const { estimate, interval, p } = shift;
  const limits = limitsOf(quantity, usual);
  const matters = mattersOf(interval, limits);
  return {
    status: 'told',
    medianA: medians.medianA!,
    medianB: medians.medianB!,
    unit,
    shift: back(estimate),
    interval: { low: back(interval.low), high: back(interval.high) },
    p,
    real: interval.low > 0 || interval.high < 0,
    matters,
    moreWanted:
      matters === 'cannot tell yet' ? moreToDecide(estimate, interval, limits, Math.min(a.length, b.length)) : null,
  };
}

/** A pair of several groups that are compared at once. */
export interface ComparedPair {
  readonly a: number;
  readonly b: number;
  readonly comparison: GroupComparison;
  /** By Holm over all pairs that could be told; null where this one could not. */
  readonly adjustedP: number | null;
}

const ALPHA = 0.05;

/** Each pair of several groups, with p by Holm's step-down: a pair is real only by its adjusted p. */
export function comparePairs(
  groups: readonly (readonly ComparedRun[])[],
  pairs: readonly (readonly [number, number])[],
  quantity: ComparedQuantity,
  random: RandomSource,
  limits: ComparisonLimits = USUAL_LIMITS,
): ComparedPair[] {
  const compared = pairs.map(([a, b]) => ({
    a,
    b,
    comparison: compareGroups(groups[a]!, groups[b]!, quantity, random, limits),
  }));
  const adjusted = holmAdjusted(
    compared.flatMap(({ comparison }) => (comparison.status === 'told' ? [comparison.p] : [])),
  );
  let next = 0;
  return compared.map((pair): ComparedPair => {
    if (pair.comparison.status !== 'told') return { ...pair, adjustedP: null };
    const adjustedP = adjusted[next]!;
    next += 1;
    return { ...pair, comparison: { ...pair.comparison, real: adjustedP <= ALPHA }, adjustedP };
  });
}
