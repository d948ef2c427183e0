import type { FitnessCode } from './fitness/fitness-flag';
import { planPayloadBps, type Direction, type Plan } from '../domain/plan';
import { planAnswerOf, type PlanAnswer } from './plan-answer';
import { summarizeSet, type RunSet, type UsualRanges } from './run-set';
import { verdictOf, worstVerdict, type NoVerdict, type Verdict, type VerdictWord } from './verdict';
import type { Reach } from '../domain/reach';

/** From so many runs on, a set is evidence that one run is not. */
export const FULL_SET = 3;

/** One run of a set, as far as the set is judged by it. Rates in bits per second, delays in ms; null: not measured. */
export interface SetMember {
  readonly downBps: number | null;
  readonly upBps: number | null;
  readonly addedMs: number | null;
  readonly flags: readonly FitnessCode[];
  /** Flags that hold for one direction alone, where they are known apart; absent in briefs of before. */
  readonly flagsDown?: readonly FitnessCode[] | undefined;
  readonly flagsUp?: readonly FitnessCode[] | undefined;
}

/** What all runs of a set have in common. */
export interface SetConditions {
  readonly reach: Reach;
  readonly plan: Plan | null;
  readonly fullFrom: number;
  readonly voidedBy: NoVerdict | null;
  /** Bits per second; null where there is none. */
  readonly yardstickBps: { readonly down: number | null; readonly up: number | null };
}

/** Runs under the same conditions, judged as one: by their medians, with the range from least to most as the interval. */
export interface SetJudgement {
  readonly count: number;
  readonly down: RunSet | null;
  readonly up: RunSet | null;
  readonly added: RunSet | null;
  readonly verdicts: { readonly down: Verdict; readonly up: Verdict };
  readonly verdict: VerdictWord;
  readonly planAnswer: PlanAnswer | null;
}

const known = (values: readonly (number | null)[]) => values.filter((value) => value !== null);

function estimateOf(rates: readonly number[]) {
  const set = summarizeSet(rates);
  return set === null
    ? null
    : { steadyBps: set.median, intervalBps: { low: Math.min(...rates), high: Math.max(...rates) } };
}

/** Flags of a direction that any run of the set raised; a set of three or more is no longer "a single run". */
function flagsOf(members: readonly SetMember[], direction: Direction): FitnessCode[] {
  const of = (member: SetMember) => (direction === 'down' ? member.flagsDown : member.flagsUp) ?? member.flags;
  const flags = new Set(members.flatMap(of));
  if (members.length >= FULL_SET) flags.delete('single-run');
  return [...flags];
}

/** How far the runs of earlier sets of the same device, link and reach lay apart, for telling odd runs. */
export interface UsualSpread {
  readonly down: UsualRanges;
  readonly up: UsualRanges;
  readonly added: UsualRanges;
}

const NOTHING_USUAL: UsualSpread = { down: [], up: [], added: [] };

export function judgeSet(
  members: readonly SetMember[],
  conditions: SetConditions,
  usual: UsualSpread = NOTHING_USUAL,
): SetJudgement {
  const { reach, plan, fullFrom, voidedBy, yardstickBps } = conditions;
  const [downs, ups] = [known(members.map((each) => each.downBps)), known(members.map((each) => each.upBps))];
  const [down, up] = [estimateOf(downs), estimateOf(ups)];
  const held = (direction: Direction) => ({
    yardstickBps: yardstickBps[direction],
    planBps: reach === 'local' || plan === null ? null : planPayloadBps(plan, direction),
    fullFrom,
  });
  const verdicts = {
    down: verdictOf(down, held('down'), voidedBy),
    up: verdictOf(up, held('up'), voidedBy),
  };
  return {
    count: members.length,
    down: summarizeSet(downs, 'rate', usual.down),
    up: summarizeSet(ups, 'rate', usual.up),
    added: summarizeSet(known(members.map((each) => each.addedMs)), 'delay', usual.added),
    verdicts,
    verdict: worstVerdict(Object.values(verdicts)),
    planAnswer: planAnswerOf(
      reach,
      plan,
      { rate: down, oneFigure: true, flags: flagsOf(members, 'down') },
      { rate: up, oneFigure: true, flags: flagsOf(members, 'up') },
    ),
  };
}
