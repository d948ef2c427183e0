import { isDeepStrictEqual } from 'node:util';
import { reportOf, sketchOf, stripDataOf, type Plan } from '@/core';
import { NEW_PLAN, type StoredPlan, type StoredRun } from '@/store';
import { done, failed, type ConsoleFaultCode, type Outcome, type PlanForm } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { conditionsOf, figureColumns } from '../runs/hand-in-run';
import { crossingOf } from './line-choice';

/** Runs that are judged anew in one go: more would keep the console from its other work. */
const BATCH = 40;

const bps = (mbps: number | null) => (mbps === null ? null : mbps * 1e6);

/** What a form says of a plan, as it is kept. */
export function planColumns(
  form: Omit<PlanForm, 'validFrom'>,
): Omit<StoredPlan, 'id' | 'lineId' | 'name' | 'validFromMs'> {
  return {
    ...NEW_PLAN,
    downBps: form.downMbps * 1e6,
    upBps: form.upMbps * 1e6,
    leastDownBps: bps(form.leastDownMbps),
    leastUpBps: bps(form.leastUpMbps),
    basis: form.basis,
    fullFrom: form.fullFromPercent / 100,
  };
}

async function planOf(context: ConsoleContext, siteId: string, lineId: string, planId: string) {
  const { sites } = context.store;
  const line = await sites.line(lineId);
  const plan = line?.siteId === siteId ? (await sites.plansOf(lineId)).find(({ id }) => id === planId) : undefined;
  return plan ?? null;
}

/** From this time on the runs of a line may be held against another plan than they were. */
async function judgeFrom(context: ConsoleContext, lineId: string, sinceMs: number): Promise<void> {
  const { sites } = context.store;
  const line = await sites.line(lineId);
  if (line === null) return;
  await sites.saveLine({ ...line, rejudgeFromMs: Math.min(line.rejudgeFromMs ?? Infinity, sinceMs) });
}

/** A plan was put in, or corrected: the runs of its days are judged anew. `beforeMs`: when it began before. */
export async function noteChangedPlan(
  context: ConsoleContext,
  plan: StoredPlan,
  beforeMs: number | null,
): Promise<void> {
  await judgeFrom(context, plan.lineId, Math.min(plan.validFromMs, beforeMs ?? Infinity));
}

/** Corrects one plan of a line, today's or an earlier one, and from which day it held. */
export async function correctPlan(
  context: ConsoleContext,
  siteId: string,
  lineId: string,
  planId: string,
  form: PlanForm,
): Promise<Outcome<StoredPlan, ConsoleFaultCode>> {
  const { sites } = context.store;
  const before = await planOf(context, siteId, lineId, planId);
  if (before === null) return failed('plan-unknown');
  const validFromMs = form.validFrom ?? before.validFromMs;
  const other = await sites.planFrom(lineId, validFromMs);
  if (other !== null && other.id !== planId) return failed('plan-day-taken');
  const plan: StoredPlan = { ...before, ...planColumns(form), validFromMs, correctedAtMs: context.wallMs() };
  await sites.savePlan(plan);
  await noteChangedPlan(context, plan, before.validFromMs);
  return done(plan);
}

/** Removes one plan of a line: the runs of its days are held against the one before it, or none. */
export async function removePlan(
  context: ConsoleContext,
  siteId: string,
  lineId: string,
  planId: string,
): Promise<Outcome<null, 'plan-unknown'>> {
  const plan = await planOf(context, siteId, lineId, planId);
  if (plan === null) return failed('plan-unknown');
  await context.store.sites.removePlan(planId);
  await judgeFrom(context, lineId, plan.validFromMs);
  return done(null);
}

async function planOfThatTime(context: ConsoleContext, run: StoredRun): Promise<Plan | null> {
  const { sites } = context.store;
  const peer = await sites.peer(run.peerId);
  const crossed = { reach: run.reach, farSiteId: peer?.farSiteId ?? null };
  return (await crossingOf(context, run.siteId, crossed, run.startedAtMs, run.lineId)).plan;
}

async function judgeAnew(context: ConsoleContext, run: StoredRun): Promise<boolean> {
  const plan = await planOfThatTime(context, run);
  if (isDeepStrictEqual(plan, run.plan)) return false;
  const { runs } = context.store;
  const judged: StoredRun = { ...run, plan, planCorrectedAtMs: context.wallMs() };
  const changed = { plan, planCorrectedAtMs: judged.planCorrectedAtMs };
  const samples = run.status === 'finished' ? await runs.samples(run.id) : null;
  if (samples === null) await runs.replacePlan(run.id, changed);
  else {
    const figures = figureColumns(reportOf(samples, conditionsOf(judged)), judged);
    await runs.replaceFigures(run.id, { ...changed, ...figures, sketch: sketchOf(stripDataOf(samples)) });
  }
  return true;
}

/**
 * Judges some of the runs anew whose plan was corrected, the oldest first; called again and again until all are. What is
 * still to be done is kept with the line, so that a restart loses nothing. How many changed.
 */
export async function judgeSomeAnew(context: ConsoleContext): Promise<number> {
  const { sites, runs } = context.store;
  let changed = 0;
  for (const line of await sites.linesToJudge()) {
    const batch = await runs.ofLineFrom(line.id, line.rejudgeFromMs!, BATCH);
    for (const run of batch) if (await judgeAnew(context, run)) changed += 1;
    const next = batch.length < BATCH ? null : batch.at(-1)!.startedAtMs + 1;
    // Somebody may have corrected an earlier plan meanwhile: that is not lost.
    const now = await sites.line(line.id);
    if (now?.rejudgeFromMs === line.rejudgeFromMs) await sites.saveLine({ ...now, rejudgeFromMs: next });
  }
  if (changed > 0) context.changes.tell('runs');
  return changed;
}
