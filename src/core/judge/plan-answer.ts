import { FITNESS_EFFECTS, type FitnessCode } from '../fitness/fitness-flag';
import { planPayloadBps, type Plan } from './plan';
import type { JudgedRate } from './verdict';
import type { Reach } from './yardstick';

/** What a run says about the plan, with the flags that decided it. */
export interface PlanAnswer {
  readonly word: 'met' | 'not met' | 'cannot tell';
  readonly because: readonly FitnessCode[];
}

function codesWith(flags: readonly FitnessCode[], effects: readonly string[]): FitnessCode[] {
  return flags.filter((code) => effects.includes(FITNESS_EFFECTS[code]));
}

/**
 * A run that reaches the plan in both directions proves it met, on any link. One that falls short proves it only when
 * nothing nearer can be the reason. Null when the run does not cross the provider's line, no plan is known, or it
 * was held against the slower end of a tunnel: that is no provider's promise.
 */
export function planAnswerOf(
  reach: Reach,
  plan: Plan | null,
  down: JudgedRate | null,
  up: JudgedRate | null,
  flags: readonly FitnessCode[],
): PlanAnswer | null {
  if (reach === 'local' || plan === null || plan.slowerEnd !== undefined) return null;
  const voided = codesWith(flags, ['voids']);
  if (voided.length > 0 || down === null || up === null) return { word: 'cannot tell', because: voided };
  const reaches =
    down.steadyBps >= plan.fullFrom * planPayloadBps(plan, 'down') &&
    up.steadyBps >= plan.fullFrom * planPayloadBps(plan, 'up');
  if (reaches) return { word: 'met', because: [] };
  const barred = codesWith(flags, ['bars']);
  if (barred.length > 0) return { word: 'cannot tell', because: barred };
  return { word: 'not met', because: codesWith(flags, ['weakens']) };
}
