import type { CaseEvidence } from './case-evidence';
import type { TestRule } from './test-rule';

/** Hours in which a case is measured by itself: a line is used, and paid for, by day. */
const FROM_HOUR = 7;
const TO_HOUR = 22;
const MINUTE_MS = 60_000;

/** A moment as the office's calendar has it. */
export interface CaseMoment {
  readonly atMs: number;
  readonly day: string;
  readonly hour: number;
}

/** Runs of a day lie so far apart that they spread over it, and never nearer than the rule allows, minutes. */
export function caseSpacingMinutes({ perDay, apartMinutes }: TestRule): number {
  return Math.max(apartMinutes, Math.floor(((TO_HOUR - FROM_HOUR) * 60) / perDay));
}

/** Whether the next run of a case is due: it is not complete, its day has too few yet, and the last attempt is long enough ago. */
export function caseRunIsDue(
  { complete, days }: CaseEvidence,
  rule: TestRule,
  { atMs, day, hour }: CaseMoment,
  lastAttemptMs: number | null,
): boolean {
  if (complete || hour < FROM_HOUR || hour >= TO_HOUR) return false;
  if (days.find((each) => each.day === day)?.enough === true) return false;
  return lastAttemptMs === null || atMs - lastAttemptMs >= caseSpacingMinutes(rule) * MINUTE_MS;
}
