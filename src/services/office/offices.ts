import { NEW_PEER, NEW_SITE, type Site } from '@/store';
import { type ConsoleFaultCode, done, failed, type Outcome } from '@/wire';
import { firstJoinCode } from '../access';
import type { ConsoleContext } from '../console/console-context';
import { SAME_ORIGIN } from '@/wire/address';

/** So long a removed office can be put back, ms. */
const UNDO_MS = 24 * 3600_000;

/**
 * Names an office, or makes a new one with a join code when `siteId` is null. The first office is where the console
 * stands, so it gets this machine as its inside peer. `timeZone`: IANA name, null for that of this machine; left out, it
 * stays as it is.
 */
export async function saveOffice(
  context: ConsoleContext,
  siteId: string | null,
  name: string,
  timeZone?: string | null,
): Promise<Outcome<Site, ConsoleFaultCode>> {
  const { sites } = context.store;
  const all = await sites.all();
  const existing = siteId === null ? undefined : all.find((site) => site.id === siteId);
  if (siteId !== null && existing === undefined) return failed('site-missing');
  const namesake = all.find((site) => site.name.toLocaleLowerCase() === name.toLocaleLowerCase());
  if (namesake !== undefined && namesake.id !== siteId) return failed('name-taken', { what: 'office', name });
  const before: Site = existing ?? { ...NEW_SITE, id: context.newId(), ...firstJoinCode(context.wallMs()), name };
  const site: Site = { ...before, name, timeZone: timeZone === undefined ? before.timeZone : timeZone };
  await sites.saveSite(site);
  if (all.length === 0)
    await sites.savePeer({
      ...NEW_PEER,
      ...{ id: context.newId(), siteId: site.id, name: 'this machine', reach: 'local', address: SAME_ORIGIN },
    });
  return done(site);
}

/** Removes an office with everything in it. It can be put back for a day; after that its runs are gone too. */
export async function removeOffice(context: ConsoleContext, siteId: string): Promise<void> {
  const { sites } = context.store;
  for (const device of await sites.devicesOf(siteId)) context.standing.dismiss(device.id, 'removed');
  await sites.markRemoved(siteId, context.wallMs());
  context.changes.tell('office', 'runs');
}

/** Removes all demo data in one step: every office that was made by the demo. */
export async function removeDemoData(context: ConsoleContext): Promise<number> {
  const demo = (await context.store.sites.all()).filter((site) => site.demo);
  for (const site of demo) await removeOffice(context, site.id);
  return demo.length;
}

export async function putBackOffice(
  context: ConsoleContext,
  siteId: string,
): Promise<Outcome<Site, 'removal-over' | 'name-taken'>> {
  const { sites } = context.store;
  const site = (await sites.removed()).find(({ id }) => id === siteId);
  if (site === undefined || site.removedAtMs! < context.wallMs() - UNDO_MS) return failed('removal-over');
  if ((await sites.all()).some((other) => other.name.toLocaleLowerCase() === site.name.toLocaleLowerCase()))
    return failed('name-taken', { what: 'office', name: site.name });
  await sites.markRemoved(siteId, null);
  context.changes.tell('office', 'runs');
  return done(site);
}

/** Offices that can still be put back, the newest first. */
export async function officesRemovedLately(context: ConsoleContext): Promise<Site[]> {
  const sinceMs = context.wallMs() - UNDO_MS;
  return (await context.store.sites.removed()).filter(({ removedAtMs }) => removedAtMs! >= sinceMs);
}

/** Deletes offices that cannot be put back any more, with their runs. */
export async function forgetOldOffices(context: ConsoleContext): Promise<void> {
  await context.store.sites.forgetRemovedBefore(context.wallMs() - UNDO_MS);
}
