import { FITNESS_EFFECTS, type FitnessCode } from './fitness/fitness-flag';
import { planPayloadBps, type Direction, type Plan } from '../domain/plan';
import type { JudgedRate } from './verdict';
import type { Reach } from '../domain/reach';

export type PlanWord = 'met' | 'not met' | 'cannot tell';

export interface DirectionAnswer {
  readonly word: PlanWord;
  readonly because: readonly FitnessCode[];
}

/** What a run says about the plan, with the flags that decided it: as a whole and direction by direction. */
export interface PlanAnswer extends DirectionAnswer {
  /** Absent in records of before. */
  readonly down?: DirectionAnswer | undefined;
  readonly up?: DirectionAnswer | undefined;
}

/** What each direction is judged by: its figure, and the flags that hold for it. */
export interface AnsweredDirection {
  readonly rate: JudgedRate | null;
  /** False where the figure is a range: then there is nothing to hold against the plan. */
  readonly oneFigure: boolean;
  readonly flags: readonly FitnessCode[];
}

function codesWith(flags: readonly FitnessCode[], effects: readonly string[]): FitnessCode[] {
  return flags.filter((code) => effects.includes(FITNESS_EFFECTS[code]));
}

function answerOf(plan: Plan, direction: Direction, { rate, oneFigure, flags }: AnsweredDirection): DirectionAnswer {
  const unproven = codesWith(flags, ['voids', 'unproven']);
  if (unproven.length > 0) return { word: 'cannot tell', because: unproven };
  if (rate === null || !oneFigure)
    return { word: 'cannot tell', because: flags.filter((code) => code === 'unsettled') };
  if (rate.steadyBps >= plan.fullFrom * planPayloadBps(plan, direction)) return { word: 'met', because: [] };
  const barred = codesWith(flags, ['bars']);
  if (barred.length > 0) return { word: 'cannot tell', because: barred };
  return { word: 'not met', because: codesWith(flags, ['weakens']) };
}

/**
 * A direction that reaches the plan proves it met, on any link. One that falls short proves it only when nothing nearer
 * can be the reason. The plan is met when both are, and not met when one is not. Null when the run does not cross the
 * provider's line to the internet, no plan is known, or it was held against the slower end of a tunnel: that is no provider's promise.
 */
export function planAnswerOf(
  reach: Reach,
  plan: Plan | null,
  down: AnsweredDirection,
  up: AnsweredDirection,
): PlanAnswer | null {
  if (reach === 'local' || reach === 'between' || plan === null || plan.slowerEnd !== undefined) return null;
  const answers = { down: answerOf(plan, 'down', down), up: answerOf(plan, 'up', up) };
  const both = [answers.down, answers.up];
  const word = both.every((each) => each.word === 'met')
    ? 'met'
    : both.some((each) => each.word === 'not met')
      ? 'not met'
      : 'cannot tell';
  const because = [...new Set(both.filter((each) => each.word === word).flatMap((each) => each.because))];
  return { word, because, ...answers };
}
