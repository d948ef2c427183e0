import type { FitnessCode } from '../judge/fitness/fitness-flag';
import type { TestRule } from './test-rule';

/** A run over the line since the case was opened. Rates in bits per second; null: not measured. */
export interface CaseRun {
  readonly id: string;
  readonly startedAtMs: number;
  /** Day of the office's calendar, YYYY-MM-DD. */
  readonly day: string;
  readonly byCable: boolean;
  readonly practice: boolean;
  readonly downBps: number | null;
  readonly upBps: number | null;
  /** Flags for which nothing can be said about the contract, of either direction. */
  readonly unfit: readonly FitnessCode[];
  /** Why a technician left it out; null: nobody did. */
  readonly leftOut: string | null;
}

/** Why a run does not count. */
export type RefusedBecause =
  | { readonly code: 'unfit'; readonly flags: readonly FitnessCode[] }
  | { readonly code: 'left-out'; readonly reason: string }
  | { readonly code: 'not-by-cable' | 'practice-line' | 'no-figure' }
  | { readonly code: 'too-soon'; readonly minutes: number };

export interface RefusedRun {
  readonly run: CaseRun;
  readonly because: RefusedBecause;
}

/** A day, with the runs that count. */
export interface CaseDay {
  readonly day: string;
  readonly runs: readonly CaseRun[];
  /** Whether it has as many as the rule asks of a day. */
  readonly enough: boolean;
}

/** Which runs count, which do not and why, and what is still missing. */
export interface CaseEvidence {
  readonly counted: readonly CaseRun[];
  readonly refused: readonly RefusedRun[];
  readonly days: readonly CaseDay[];
  readonly missingRuns: number;
  readonly missingDays: number;
  /** Whether the rule is fulfilled: computed, never typed. */
  readonly complete: boolean;
}

const MINUTE_MS = 60_000;

function refusalOf(run: CaseRun, lastCountedMs: number | null, rule: TestRule): RefusedBecause | null {
  if (run.leftOut !== null) return { code: 'left-out', reason: run.leftOut };
  if (run.practice) return { code: 'practice-line' };
  if (!run.byCable) return { code: 'not-by-cable' };
  if (run.unfit.length > 0) return { code: 'unfit', flags: run.unfit };
  if (run.downBps === null || run.upBps === null) return { code: 'no-figure' };
  if (lastCountedMs === null) return null;
  const minutes = (run.startedAtMs - lastCountedMs) / MINUTE_MS;
  return minutes < rule.apartMinutes ? { code: 'too-soon', minutes } : null;
}

/** `runs`: all over the line since the case was opened, the oldest first. A run that comes too soon does not push the next away. */
export function caseEvidence(runs: readonly CaseRun[], rule: TestRule): CaseEvidence {
  const counted: CaseRun[] = [];
  const refused: RefusedRun[] = [];
  for (const run of runs) {
    const because = refusalOf(run, counted.at(-1)?.startedAtMs ?? null, rule);
    if (because === null) counted.push(run);
    else refused.push({ run, because });
  }
  const names = [...new Set(counted.map(({ day }) => day))];
  const days = names.map((day) => {
    const of = counted.filter((run) => run.day === day);
    return { day, runs: of, enough: of.length >= rule.perDay };
  });
  const missingRuns = Math.max(0, rule.runs - counted.length);
  const missingDays = Math.max(0, rule.days - days.filter(({ enough }) => enough).length);
  return { counted, refused, days, missingRuns, missingDays, complete: missingRuns === 0 && missingDays === 0 };
}
