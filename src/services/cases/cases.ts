import type { CaseContract, CaseRule } from '@/core';
import type { StoredCase } from '@/store';
import { done, failed, readDay, type CaseForm, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

const bps = (mbps: number | null) => (mbps === null ? null : mbps * 1e6);

function contractOf(form: CaseForm): CaseContract {
  return {
    down: { advertisedBps: bps(form.downAdvertised), usualBps: bps(form.downUsual), leastBps: bps(form.downLeast) },
    up: { advertisedBps: bps(form.upAdvertised), usualBps: bps(form.upUsual), leastBps: bps(form.upLeast) },
  };
}

function ruleOf({ runs, days, perDay, apartMinutes, leastDays, advertisedDays, ...form }: CaseForm): CaseRule {
  return {
    ...{ runs, days, perDay, apartMinutes, leastDays, advertisedDays },
    ...{ usualMissedShare: form.usualMissedPercent, advertisedShare: form.advertisedPercent },
  };
}

/** From which moment runs count, the day read in the office's own time zone. */
async function openedFrom(
  { store, wallMs }: ConsoleContext,
  siteId: string,
  typed: string,
  before: number,
): Promise<number> {
  if (typed === '') return before;
  return readDay(typed, wallMs(), (await store.sites.byId(siteId))?.timeZone ?? null) ?? before;
}

/** Opens a case against a line; runs count from now on, or from an earlier day. */
export async function openCase(
  context: ConsoleContext,
  byName: string,
  { siteId, form }: { readonly siteId: string; readonly form: CaseForm },
): Promise<Outcome<{ readonly id: string }, 'site-missing' | 'line-unknown'>> {
  const { store } = context;
  if ((await store.sites.byId(siteId)) === null) return failed('site-missing');
  if (!(await store.sites.linesOf(siteId)).some(({ id }) => id === form.lineId)) return failed('line-unknown');
  const id = context.newId();
  await store.cases.save({
    ...{
      id,
      siteId,
      lineId: form.lineId,
      title: form.title,
      notes: form.notes,
      byName,
      closedAtMs: null,
      deviceId: null,
      askedAtMs: null,
    },
    ...{ contract: contractOf(form), rule: ruleOf(form) },
    openedAtMs: await openedFrom(context, siteId, form.openedFrom, context.wallMs()),
  });
  return done({ id });
}

type Known<Value> = Promise<Outcome<Value, 'case-unknown'>>;

async function change(
  { store }: ConsoleContext,
  id: string,
  changed: (before: StoredCase) => Partial<StoredCase> | Promise<Partial<StoredCase>>,
): Known<null> {
  const before = await store.cases.byId(id);
  if (before === null) return failed('case-unknown');
  await store.cases.save({ ...before, ...(await changed(before)) });
  return done(null);
}

/** Its title, the contract's figures and the rule; the line stays. */
export function changeCase(
  context: ConsoleContext,
  { id, form }: { readonly id: string; readonly form: CaseForm },
): Known<null> {
  return change(context, id, async ({ siteId, openedAtMs }) => ({
    ...{ title: form.title, notes: form.notes, contract: contractOf(form), rule: ruleOf(form) },
    openedAtMs: await openedFrom(context, siteId, form.openedFrom, openedAtMs),
  }));
}

/** Closed, no further run becomes a part of it; opened again, those since then do. */
export function closeCase(
  context: ConsoleContext,
  { id, closed }: { readonly id: string; readonly closed: boolean },
): Known<null> {
  return change(context, id, () => ({ closedAtMs: closed ? context.wallMs() : null }));
}

/** Names the device that measures what is missing while it stands by; null: none does. */
export async function letMeasure(
  context: ConsoleContext,
  { id, deviceId }: { readonly id: string; readonly deviceId: string | null },
): Promise<Outcome<null, 'case-unknown' | 'device-unknown'>> {
  const stored = await context.store.cases.byId(id);
  if (stored === null) return failed('case-unknown');
  const device = deviceId === null ? null : await context.store.sites.device(deviceId);
  if (deviceId !== null && device?.siteId !== stored.siteId) return failed('device-unknown');
  return change(context, id, () => ({ deviceId }));
}

export async function removeCase(context: ConsoleContext, id: string): Known<null> {
  if ((await context.store.cases.byId(id)) === null) return failed('case-unknown');
  await context.store.cases.remove(id);
  return done(null);
}
