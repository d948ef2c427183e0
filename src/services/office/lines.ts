import type { Plan } from '@/core';
import { NEW_LINE, type Line, type RemovedLine, type StoredPlan } from '@/store';
import { type ConsoleFaultCode, done, failed, type LineForm, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { planOfRow } from './plan-of-row';
import { noteChangedPlan, planColumns } from './plans';

/** What a form shows of a line and its plan, as one text: the same text means that nobody changed it meanwhile. */
export function shownLine(line: Line | null, plan: Plan | null): string {
  return line === null ? '' : JSON.stringify([line.name, line.provider, plan]);
}

/**
 * A line's name and its plan: the one in force corrected, or another from another day on. Runs are held against
 * the plan of their day; those of a plan that was corrected are judged anew. The first line of a site is in use at once; a further one when it is put in use.
 */
export async function saveLine(
  context: ConsoleContext,
  siteId: string,
  lineId: string | null,
  form: LineForm,
): Promise<Outcome<Line, ConsoleFaultCode>> {
  const { sites } = context.store;
  if ((await sites.byId(siteId)) === null) return failed('site-missing');
  const lines = await sites.linesOf(siteId);
  const existing = lines.find((line) => line.id === lineId);
  if (lineId !== null && existing === undefined) return failed('line-unknown');
  const namesake = lines.find((line) => line.name.toLocaleLowerCase() === form.lineName.toLocaleLowerCase());
  if (namesake !== undefined && namesake.id !== lineId)
    return failed('name-taken', { what: 'line', name: form.lineName });
  const line: Line = {
    ...(existing ?? NEW_LINE),
    ...{ id: existing?.id ?? context.newId(), siteId, name: form.lineName, provider: form.provider },
  };
  const nowMs = context.wallMs();
  const inForce = existing === undefined ? null : await sites.planAt(existing.id, nowMs);
  if (form.shown !== shownLine(existing ?? null, planOfRow(inForce))) return failed('changed-meanwhile');
  const validFromMs = form.validFrom ?? inForce?.validFromMs ?? nowMs;
  // Another day is another plan: the one before it stays, for the runs of its days.
  const replaced = existing === undefined ? null : await sites.planFrom(existing.id, validFromMs);
  const plan: StoredPlan = {
    ...planColumns(form),
    id: replaced?.id ?? context.newId(),
    lineId: line.id,
    name: form.lineName,
    validFromMs,
    correctedAtMs: replaced === null ? null : nowMs,
  };
  await sites.saveLine(line);
  await sites.savePlan(plan);
  if (existing !== undefined) await noteChangedPlan(context, plan, replaced?.validFromMs ?? null);
  if (lines.length === 0) await sites.saveLineSwitch({ id: context.newId(), siteId, lineId: line.id, atMs: nowMs });
  return done(line);
}

/** From now on the site uses this line: its backup, or the other one again. */
export async function putLineInUse(
  context: ConsoleContext,
  siteId: string,
  lineId: string,
): Promise<Outcome<null, 'line-unknown'>> {
  const { sites } = context.store;
  const line = await sites.line(lineId);
  if (line?.siteId !== siteId) return failed('line-unknown');
  const nowMs = context.wallMs();
  if ((await sites.lineInUse(siteId, nowMs))?.id !== lineId)
    await sites.saveLineSwitch({ id: context.newId(), siteId, lineId, atMs: nowMs });
  return done(null);
}

/** Removes a line that is not in use, with its plans; runs over it keep its name and their plan. Can be undone for a day. */
export async function removeLine(
  context: ConsoleContext,
  siteId: string,
  lineId: string,
): Promise<Outcome<null, 'line-unknown' | 'line-in-use'>> {
  const { sites, removals } = context.store;
  const line = await sites.line(lineId);
  if (line?.siteId !== siteId) return failed('line-unknown');
  const nowMs = context.wallMs();
  if ((await sites.lineInUse(siteId, nowMs))?.id === lineId) return failed('line-in-use', { line: line.name });
  const switches = (await sites.lineSwitchesOf(siteId)).filter((each) => each.lineId === lineId);
  const removed: RemovedLine = { line, plans: await sites.plansOf(lineId), switches };
  await removals.remove({ id: lineId, siteId, kind: 'line', name: line.name, removed, removedAtMs: nowMs });
  return done(null);
}
