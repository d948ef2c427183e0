import {
  groupedBy,
  median,
  planAnswerOf,
  planOverTime,
  planPayloadBps,
  SIDE_QUANTITIES,
  SWAP_WORDS,
  type HourLoads,
  type AnsweredRun,
  type Direction,
  type FitnessCode,
  isUnfit,
  unfitOf,
  type Plan,
  type PlanOverTime,
  type SideQuantity,
  type SwapCode,
} from '@/core';
import type { StoredPlan, TimedRun, TimeSubject } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { calendarIn, type CalendarMoment } from '../diagnosis';
import { planOfRow } from '../office/plan-of-row';
import { hourLoadsOf } from './hour-loads';
import { readSubject } from './time-subjects';

/** Occasions column by column, the oldest first: a hundred thousand of them travel as a few lists. */
export interface OccasionColumns extends Readonly<Record<SideQuantity, readonly (number | null)[]>> {
  /** The run that is opened for the occasion: its last. */
  readonly runId: readonly string[];
  readonly startedAtMs: readonly number[];
  readonly runs: readonly number[];
  /** Whether a run of it was brought in from a file. */
  readonly fromFile: readonly boolean[];
  /** As the office's calendar has it: from 0 (Monday) to 6, from 0 to 23. */
  readonly weekday: readonly number[];
  readonly hour: readonly number[];
}

/** What the contract promised from a moment on, payload, bits per second. */
export interface PlanStep {
  readonly fromMs: number;
  readonly name: string;
  readonly downBps: number;
  readonly upBps: number;
  /** From so much on it is met. */
  readonly fullFrom: number;
}

/** Something that may explain a change. */
export interface TimeFlag {
  readonly atMs: number;
  readonly kind: 'swap' | 'line';
  readonly words: string;
}

/** All of one subject that a picture over time and its sentences are made of. */
export interface TimeSeries {
  readonly subject: string;
  readonly occasions: OccasionColumns;
  readonly plans: readonly PlanStep[];
  /** What a device was held against last; null of a line, whose yardstick is its plan. */
  readonly yardstick: { readonly downBps: number | null; readonly upBps: number | null } | null;
  readonly flags: readonly TimeFlag[];
  /** Only of a line. */
  readonly plan: PlanOverTime | null;
  /** Runs through a practice line that are left out beside real ones. */
  readonly practiceAside: number;
  /** Figures of a line that it is not to be judged by, for something nearer may be the limit. */
  readonly unfit: number;
  /** What goes over the line by the hour, by its router's counters; null: nobody reads them, or it is not crossed. */
  readonly hourLoads: HourLoads | null;
}

const isUnfitRun = ({ flagsDown, flagsUp }: TimedRun) => isUnfit(flagsDown) || isUnfit(flagsUp);

/** Runs of a line speak of it only in a direction in which nothing nearer may be the limit. */
function ofTheLine(run: TimedRun): TimedRun {
  const [down, up] = [isUnfit(run.flagsDown), isUnfit(run.flagsUp)];
  return down || up ? { ...run, down: down ? null : run.down, up: up ? null : run.up } : run;
}

/** The middle one of a few that are known; a rate of 0 is that of a run in which nothing came, and says nothing. */
function middleOf(of: readonly TimedRun[], quantity: SideQuantity): number | null {
  const isRate = quantity === 'down' || quantity === 'up';
  const known: number[] = [];
  for (const run of of) {
    const value = run[quantity];
    if (value !== null && !(isRate && value <= 0)) known.push(value);
  }
  return known.length === 1 ? known[0]! : median(known);
}

function occasionsOf(runs: readonly TimedRun[], momentOf: (atMs: number) => CalendarMoment): OccasionColumns {
  const sets = [...groupedBy(runs, ({ setId }) => setId).values()];
  const moments = sets.map((of) => momentOf(of[0]!.startedAtMs));
  const columns = Object.fromEntries(
    SIDE_QUANTITIES.map((quantity) => [quantity, sets.map((of) => middleOf(of, quantity))]),
  ) as Record<SideQuantity, (number | null)[]>;
  return {
    ...columns,
    runId: sets.map((of) => of.at(-1)!.id),
    startedAtMs: sets.map((of) => of[0]!.startedAtMs),
    runs: sets.map(({ length }) => length),
    fromFile: sets.map((of) => of.some(({ fromFile }) => fromFile)),
    weekday: moments.map(({ weekday }) => weekday),
    hour: moments.map(({ hour }) => hour),
  };
}

const stepOf = (row: StoredPlan): PlanStep => {
  const plan = planOfRow(row)!;
  return {
    ...{ fromMs: row.validFromMs, name: plan.name, fullFrom: plan.fullFrom },
    ...{ downBps: planPayloadBps(plan, 'down'), upBps: planPayloadBps(plan, 'up') },
  };
};

/** What finds the plan in force at a moment, of plans in the order of their days. */
function plansInForce(plans: readonly StoredPlan[]): (atMs: number) => Plan | null {
  const read = plans.map((row) => ({ fromMs: row.validFromMs, plan: planOfRow(row) }));
  return (atMs) => read.findLast(({ fromMs }) => fromMs <= atMs)?.plan ?? null;
}

function heldDirection(bps: number | null, oneFigure: boolean, flags: readonly FitnessCode[]) {
  return { oneFigure, flags, rate: bps === null ? null : { steadyBps: bps, intervalBps: null } };
}

/** Whether the run could tell, by what it was fit for: one that happened to reach the plan over the air is in no share. */
function answeredRun(run: TimedRun, plan: Plan, { day, hour }: CalendarMoment): AnsweredRun {
  const answer = isUnfitRun(run)
    ? ({ word: 'cannot tell', because: unfitOf([...run.flagsDown, ...run.flagsUp]) } as const)
    : planAnswerOf(
        'internet',
        plan,
        heldDirection(run.down, !run.downIsRange, run.flagsDown),
        heldDirection(run.up, !run.upIsRange, run.flagsUp),
      )!;
  return { startedAtMs: run.startedAtMs, day, hour, answer };
}

async function flagsOf({ store }: ConsoleContext, siteId: string, subject: TimeSubject): Promise<TimeFlag[]> {
  const [swaps, switches, lines] = await Promise.all([
    store.findings.swapsOf(siteId),
    store.sites.lineSwitchesOf(siteId),
    store.sites.linesOf(siteId),
  ]);
  const nameOf = (lineId: string) => lines.find(({ id }) => id === lineId)?.name ?? 'a line that was removed';
  const touches = (deviceId: string | null) =>
    'lineId' in subject ? deviceId === null : deviceId === null || deviceId === subject.deviceId;
  return [
    ...swaps
      .filter(({ deviceId }) => touches(deviceId))
      .map(({ atMs, what, note }) => ({
        ...{ atMs, kind: 'swap' as const },
        words: note === '' ? SWAP_WORDS[what as SwapCode] : `${SWAP_WORDS[what as SwapCode]}: ${note}`,
      })),
    // The first one is no switch: the office began with it.
    ...switches
      .sort((a, b) => a.atMs - b.atMs)
      .slice(1)
      .map(({ atMs, lineId }) => ({ atMs, kind: 'line' as const, words: `${nameOf(lineId)} in use` })),
  ].sort((a, b) => a.atMs - b.atMs);
}

const lastOf = (runs: readonly TimedRun[], direction: Direction) =>
  runs.findLast((run) => run[`${direction}Yardstick`] !== null)?.[`${direction}Yardstick`] ?? null;

/** The course of a subject over time, or over a part of it; the subject as it stands in an address. */
export async function timeSeriesOf(
  context: ConsoleContext,
  siteId: string,
  subjectKey: string,
  span: { readonly fromMs: number; readonly untilMs: number } = { fromMs: -Infinity, untilMs: Infinity },
): Promise<Outcome<TimeSeries, 'site-missing' | 'subject-unknown'>> {
  const { store } = context;
  const site = await store.sites.byId(siteId);
  if (site === null) return failed('site-missing');
  const subject = readSubject(subjectKey);
  if (subject === null) return failed('subject-unknown');
  const lines = await store.sites.linesOf(siteId);
  if (
    'lineId' in subject
      ? !lines.some(({ id }) => id === subject.lineId)
      : await isUnknownDevice(context, siteId, subject.deviceId)
  )
    return failed('subject-unknown');
  const found = (await store.time.runs(siteId, subject)).filter(
    ({ startedAtMs }) => startedAtMs >= span.fromMs && startedAtMs < span.untilMs,
  );
  const real = found.filter(({ practice }) => !practice);
  const runs = real.length > 0 ? real : found;
  const momentOf = calendarIn(site.timeZone);
  const isLine = 'lineId' in subject;
  const usedLine = isLine ? subject.lineId : (runs.at(-1)?.lineId ?? null);
  const plans =
    usedLine === null ? [] : [...(await store.sites.plansOf(usedLine))].sort((a, b) => a.validFromMs - b.validFromMs);
  const planAt = plansInForce(plans);
  const answered = runs.flatMap((run) => {
    const plan = planAt(run.startedAtMs);
    return plan === null ? [] : [answeredRun(run, plan, momentOf(run.startedAtMs))];
  });
  return done({
    subject: subjectKey,
    occasions: occasionsOf(isLine ? runs.map(ofTheLine) : runs, momentOf),
    plans: isLine || subject.reach === 'internet' ? plans.map(stepOf) : [],
    yardstick: isLine ? null : { downBps: lastOf(runs, 'down'), upBps: lastOf(runs, 'up') },
    flags: await flagsOf(context, siteId, subject),
    plan: isLine && plans.length > 0 ? planOverTime(answered) : null,
    practiceAside: found.length - runs.length,
    unfit: isLine ? runs.filter(isUnfitRun).length : 0,
    hourLoads: isLine || subject.reach === 'internet' ? await hourLoadsOf(context, siteId, site.timeZone) : null,
  });
}

async function isUnknownDevice({ store }: ConsoleContext, siteId: string, deviceId: string): Promise<boolean> {
  return (await store.sites.device(deviceId))?.siteId !== siteId;
}
