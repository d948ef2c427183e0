import type { FitnessCode } from '../judge/fitness/fitness-flag';
import type { PlanAnswer } from '../judge/plan-answer';

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

type Stretch = NonNullable<PlanOverTime['longestBelow']>;

/** Longer in time, or as long and with more runs. */
function isLonger(one: Stretch, other: Stretch | null): boolean {
  if (other === null) return true;
  const [length, otherLength] = [one.untilMs - one.fromMs, other.untilMs - other.fromMs];
  return length > otherLength || (length === otherLength && one.runs > other.runs);
}

/** The longest time without a run that met the plan, as one hears of run after run, the oldest first. */
class LongestBelow {
  longest: Stretch | null = null;
  #going: Stretch | null = null;

  hear(atMs: number, met: boolean): void {
    if (met) {
      this.#going = null;
      return;
    }
    const { fromMs, runs } = this.#going ?? { fromMs: atMs, runs: 0 };
    this.#going = { fromMs, untilMs: atMs, runs: runs + 1 };
    if (isLonger(this.#going, this.longest)) this.longest = this.#going;
  }
}

interface Tally {
  met: number;
  notMet: number;
}

const none = (): Tally => ({ met: 0, notMet: 0 });

function tallyOf<Key>(tallies: Map<Key, Tally>, key: Key): Tally {
  let tally = tallies.get(key);
  if (tally === undefined) tallies.set(key, (tally = none()));
  return tally;
}

/** `runs`: the oldest first. Runs that could not tell are counted with their reasons, and are in no share. */
export function planOverTime(runs: readonly AnsweredRun[]): PlanOverTime {
  const all = none();
  const [days, hours] = [new Map<string, Tally>(), new Map<number, Tally>()];
  const reasons = new Map<FitnessCode, number>();
  const below = new LongestBelow();
  let cannotTell = 0;
  for (const { startedAtMs, day, hour, answer } of runs) {
    if (answer.word === 'cannot tell') {
      cannotTell += 1;
      for (const code of new Set(answer.because)) reasons.set(code, (reasons.get(code) ?? 0) + 1);
      continue;
    }
    const met = answer.word === 'met';
    below.hear(startedAtMs, met);
    for (const tally of [all, tallyOf(days, day), tallyOf(hours, hour)]) tally[met ? 'met' : 'notMet'] += 1;
  }
  return {
    ...all,
    days: [...days].map(([day, of]) => ({ day, ...of })),
    hours: [...hours].sort(([one], [other]) => one - other).map(([hour, of]) => ({ hour, ...of })),
    longestBelow: below.longest,
    cannotTell,
    reasons: [...reasons]
      .map(([code, count]) => ({ code, runs: count }))
      .sort((one, other) => other.runs - one.runs || one.code.localeCompare(other.code)),
  };
}
