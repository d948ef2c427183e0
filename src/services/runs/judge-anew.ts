import { isDeepStrictEqual } from 'node:util';
import { reportOf, sketchOf, stripDataOf, type Plan } from '@/core';
import type { StoredRun } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { crossingOf } from '../office/line-choice';
import { conditionsOf, figureColumns } from './judged-run';

/** Runs that are judged anew in one go: more would keep the console from its other work. */
const BATCH = 40;

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
