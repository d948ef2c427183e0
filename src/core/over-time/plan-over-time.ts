import type { FitnessCode } from '../judge/fitness/fitness-flag';
import type { PlanAnswer } from '../judge/plan-answer';
import { groupedBy } from '../stats/grouped';

/** A run that crossed the provider's line, with its place in the calendar of its office. */
export interface AnsweredRun {
  readonly startedAtMs: number;
  /** The day, as YYYY-MM-DD, and the hour from 0 to 23. */
  readonly day: string;
  readonly hour: number;
  readonly answer: Pick<PlanAnswer, 'word' | 'because'>;
}

export interface PlanShare {
  readonly met: number;
  readonly notMet: number;
}

/** Of the runs over a line, how many met the plan, when they did not, and which could not tell. */
export interface PlanOverTime extends PlanShare {
  /** By day, the first one first, and by hour of the day; only those in which a run could tell. */
  readonly days: readonly (PlanShare & { readonly day: string })[];
  readonly hours: readonly (PlanShare & { readonly hour: number })[];
  /** The longest time in which no run met it: from the first to the last such run. Null: each one met it. */
  readonly longestBelow: { readonly fromMs: number; readonly untilMs: number; readonly runs: number } | null;
  readonly cannotTell: number;
  /** Why: a run may have several reasons. The most frequent first. */
  readonly reasons: readonly { readonly code: FitnessCode; readonly runs: number }[];
}

function shareOf(runs: readonly AnsweredRun[]): PlanShare {
  const met = runs.filter(({ answer }) => answer.word === 'met').length;
  return { met, notMet: runs.length - met };
}

type Stretch = NonNullable<PlanOverTime['longestBelow']>;

/** Longer in time, or as long and with more runs. */
function isLonger(one: Stretch, other: Stretch | null): boolean {
  if (other === null) return true;
  const [length, otherLength] = [one.untilMs - one.fromMs, other.untilMs - other.fromMs];
  return length > otherLength || (length === otherLength && one.runs > other.runs);
}

function longestBelowIn(runs: readonly AnsweredRun[]): Stretch | null {
  let longest: Stretch | null = null;
  let below = null as Stretch | null;
  for (const { startedAtMs, answer } of runs) {
    if (answer.word === 'met') below = null;
    else below = { fromMs: below?.fromMs ?? startedAtMs, untilMs: startedAtMs, runs: (below?.runs ?? 0) + 1 };
    if (below !== null && isLonger(below, longest)) longest = below;
  }
  return longest;
}

/** `runs`: the oldest first. Runs that could not tell are counted with their reasons, and are in no share. */
export function planOverTime(runs: readonly AnsweredRun[]): PlanOverTime {
  const fit = runs.filter(({ answer }) => answer.word !== 'cannot tell');
  const unfit = runs.filter(({ answer }) => answer.word === 'cannot tell');
  const reasons = groupedBy(
    unfit.flatMap(({ answer }) => [...new Set(answer.because)]),
    (code) => code,
  );
  return {
    ...shareOf(fit),
    days: [...groupedBy(fit, ({ day }) => day)].map(([day, of]) => ({ day, ...shareOf(of) })),
    hours: [...groupedBy(fit, ({ hour }) => hour)]
      .sort(([one], [other]) => one - other)
      .map(([hour, of]) => ({ hour, ...shareOf(of) })),
    longestBelow: longestBelowIn(fit),
    cannotTell: unfit.length,
    reasons: [...reasons]
      .map(([code, of]) => ({ code, runs: of.length }))
      .sort((one, other) => other.runs - one.runs || one.code.localeCompare(other.code)),
  };
}
