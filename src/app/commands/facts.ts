import type { ConsoleContext } from '@/services';
import type { Look } from './command';

/** What is worth remembering of each thing when somebody changes it: names instead of ids, rates in bits per second. */

export async function siteLook({ store }: ConsoleContext, siteId: string | null): Promise<Look | null> {
  const site = siteId === null ? null : await store.sites.byId(siteId);
  return site === null
    ? null
    : { siteId: site.id, subject: site.name, facts: { name: site.name, timeZone: site.timeZone } };
}

export async function lineLook({ store, wallMs }: ConsoleContext, lineId: string | null): Promise<Look | null> {
  const line = lineId === null ? null : await store.sites.line(lineId);
  if (line === null) return null;
  const [plan, inUse] = await Promise.all([
    store.sites.planAt(line.id, wallMs()),
    store.sites.lineInUse(line.siteId, wallMs()),
  ]);
  return {
    ...{ siteId: line.siteId, subject: line.name },
    facts: {
      ...{ name: line.name, provider: line.provider, inUse: inUse?.id === line.id },
      ...(plan === null ? {} : planFacts(plan)),
    },
  };
}

interface PlanShape {
  readonly downBps: number;
  readonly upBps: number;
  readonly leastDownBps: number | null;
  readonly leastUpBps: number | null;
  readonly basis: string;
  readonly fullFrom: number;
  readonly validFromMs: number;
}

const planFacts = ({ downBps, upBps, leastDownBps, leastUpBps, basis, fullFrom, validFromMs }: PlanShape) => ({
  ...{ downBps, upBps, leastDownBps, leastUpBps, basis, fullFrom, validFromMs },
});

export async function planLook({ store }: ConsoleContext, lineId: string, planId: string): Promise<Look | null> {
  const [line, plans] = await Promise.all([store.sites.line(lineId), store.sites.plansOf(lineId)]);
  const plan = plans.find(({ id }) => id === planId);
  if (line === null || plan === undefined) return null;
  return { siteId: line.siteId, subject: line.name, facts: planFacts(plan) };
}

export async function deviceLook({ store }: ConsoleContext, deviceId: string | null): Promise<Look | null> {
  const device = deviceId === null ? null : await store.sites.device(deviceId);
  if (device === null) return null;
  const spots = await store.sites.spotsOf(device.siteId);
  const { siteId, name, kind, notes, link, openUntilMs } = device;
  const spot = spots.find(({ id }) => id === device.spotId)?.name ?? null;
  return { siteId, subject: name, facts: { name, spot, kind, notes, link: JSON.stringify(link), openUntilMs } };
}

export async function peerLook({ store }: ConsoleContext, peerId: string | null): Promise<Look | null> {
  const peer = peerId === null ? null : await store.sites.peer(peerId);
  if (peer === null) return null;
  const { siteId, name, reach, address, pinned, publicKey, farSiteId, web } = peer;
  const pages = web === null ? {} : { pages: web.pages.join(' '), mostBytes: web.mostBytes, contact: web.contact };
  return { siteId, subject: name, facts: { name, reach, address, pinned, key: publicKey, farSiteId, ...pages } };
}

export async function runLook({ store }: ConsoleContext, runId: string): Promise<Look | null> {
  const run = await store.runs.byId(runId);
  if (run === null) return null;
  const facts = { run: run.id, notes: run.notes, shared: (run.shareNumber ?? 0) > 0 };
  return { siteId: run.siteId, subject: `${run.deviceName}, ${run.reach}`, facts };
}

export async function personLook({ store }: ConsoleContext, technicianId: string | null): Promise<Look | null> {
  const person = technicianId === null ? null : await store.access.technician(technicianId);
  if (person === null) return null;
  return { subject: person.name, facts: { name: person.name, keeper: person.keeper, invited: person.hash === '' } };
}

export async function tokenLook({ store }: ConsoleContext, find: { id?: string; name?: string }): Promise<Look | null> {
  const token = (await store.access.apiTokens()).find(({ id, name }) => id === find.id || name === find.name);
  if (token === undefined) return null;
  return { subject: token.name, facts: { name: token.name, scope: token.scope, endsAtMs: token.endsAtMs } };
}
