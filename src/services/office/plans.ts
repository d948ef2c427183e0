import { NEW_PLAN, type StoredPlan } from '@/store';
import { done, failed, type ConsoleFaultCode, type Outcome, type PlanForm } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

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
