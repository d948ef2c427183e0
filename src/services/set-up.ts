import type { Link, Plan } from '@/core';
import type { Device, Line, Site, Spot, StoredApiToken, StoredPeer, StoredPlan } from '@/store';
import {
  type ConsoleFaultCode,
  type DeviceForm,
  done,
  failed,
  type LineForm,
  linkOfForm,
  type Outcome,
  type PeerForm,
} from '@/wire';
import { firstJoinCode } from './access';
import type { ConsoleContext } from './console-context';
import { SAME_ORIGIN } from './peer-address';
import { planOfRow } from './plan-of-row';
import { removedLately, type Removed } from './removals';
import { spotNamed } from './spot-named';

/** All that the set-up page shows and edits. */
export interface SetUp {
  readonly site: Site | null;
  readonly line: Line | null;
  readonly plan: Plan | null;
  /** All plans of the line, the newest first. */
  readonly plans: readonly StoredPlan[];
  readonly spots: readonly Spot[];
  readonly devices: readonly {
    readonly id: string;
    readonly name: string;
    readonly spotName: string;
    readonly link: Link;
  }[];
  readonly peers: readonly StoredPeer[];
  readonly apiTokens: readonly StoredApiToken[];
  readonly removed: readonly Removed[];
  readonly publicKey: string;
  readonly port: number;
}

export async function setUpOf(context: ConsoleContext): Promise<SetUp> {
  const { sites } = context.store;
  const [site = null] = await sites.all();
  const apiTokens = await context.store.access.apiTokens();
  const shared = { site, apiTokens, publicKey: context.publicKey, port: context.port };
  if (site === null)
    return { ...shared, line: null, plan: null, plans: [], removed: [], spots: [], devices: [], peers: [] };
  const [[line = null], spots, devices, peers] = await Promise.all([
    sites.linesOf(site.id),
    sites.spotsOf(site.id),
    sites.devicesOf(site.id),
    sites.peersOf(site.id),
  ]);
  return {
    ...shared,
    line,
    removed: await removedLately(context, site.id),
    plans: line === null ? [] : await sites.plansOf(line.id),
    plan: line === null ? null : planOfRow(await sites.planAt(line.id, context.wallMs())),
    spots,
    devices: devices.map(({ id, name, spotId, link }) => ({
      id,
      name,
      link,
      spotName: spots.find((spot) => spot.id === spotId)?.name ?? '',
    })),
    peers,
  };
}

/** Names the office; the first time, makes it, with a join code and this machine as its inside peer. */
export async function saveOffice(context: ConsoleContext, name: string): Promise<Site> {
  const { sites } = context.store;
  const [existing] = await sites.all();
  const site: Site =
    existing === undefined
      ? { id: context.newId(), name, ...firstJoinCode(context.wallMs()), demo: false }
      : { ...existing, name };
  await sites.saveSite(site);
  if (existing === undefined)
    await sites.savePeer({
      id: context.newId(),
      siteId: site.id,
      name: 'this machine',
      reach: 'local',
      address: SAME_ORIGIN,
      practice: false,
    });
  return site;
}

/** What a form shows of a line and its plan, as one text: the same text means that nobody changed it meanwhile. */
export function shownLine(line: Line | null, plan: Plan | null): string {
  return line === null ? '' : JSON.stringify([line.name, line.provider, plan]);
}

/**
 * The line's name and its plan: the one in force corrected, or another from another day on. Runs that were made keep the
 * plan of their day.
 */
export async function saveLine(
  context: ConsoleContext,
  siteId: string,
  form: LineForm,
): Promise<Outcome<Line, ConsoleFaultCode>> {
  const { sites } = context.store;
  if ((await sites.byId(siteId)) === null) return failed('site-missing');
  const [existing] = await sites.linesOf(siteId);
  const line: Line = { id: existing?.id ?? context.newId(), siteId, name: form.lineName, provider: form.provider };
  const nowMs = context.wallMs();
  const inForce = existing === undefined ? null : await sites.planAt(existing.id, nowMs);
  if (form.shown !== shownLine(existing ?? null, planOfRow(inForce))) return failed('changed-meanwhile');
  const validFromMs = form.validFrom ?? inForce?.validFromMs ?? nowMs;
  // Another day is another plan: the one before it stays, for the runs of its days.
  const replaced = existing === undefined ? null : await sites.planFrom(existing.id, validFromMs);
  const bps = (mbps: number | null) => (mbps === null ? null : mbps * 1e6);
  const plan: StoredPlan = {
    id: replaced?.id ?? context.newId(),
    lineId: line.id,
    name: form.lineName,
    downBps: form.downMbps * 1e6,
    upBps: form.upMbps * 1e6,
    leastDownBps: bps(form.leastDownMbps),
    leastUpBps: bps(form.leastUpMbps),
    basis: form.basis,
    fullFrom: form.fullFromPercent / 100,
    validFromMs,
  };
  await sites.saveLine(line);
  await sites.savePlan(plan);
  return done(line);
}

export async function saveDevice(
  context: ConsoleContext,
  siteId: string,
  deviceId: string | null,
  form: DeviceForm,
): Promise<Outcome<Device, ConsoleFaultCode>> {
  const { sites } = context.store;
  if ((await sites.byId(siteId)) === null) return failed('site-missing');
  const devices = await sites.devicesOf(siteId);
  if (deviceId !== null && !devices.some((device) => device.id === deviceId)) return failed('device-unknown');
  const namesake = devices.find((device) => device.name.toLocaleLowerCase() === form.name.toLocaleLowerCase());
  if (namesake !== undefined && namesake.id !== deviceId)
    return failed('name-taken', { what: 'device', name: form.name });
  const spotId = await spotNamed(context, siteId, form.spotName);
  const device: Device = { id: deviceId ?? context.newId(), siteId, spotId, name: form.name, link: linkOfForm(form) };
  await sites.saveDevice(device);
  return done(device);
}

export async function savePeer(
  context: ConsoleContext,
  siteId: string,
  peerId: string | null,
  form: PeerForm,
): Promise<Outcome<StoredPeer, ConsoleFaultCode>> {
  const { sites } = context.store;
  if ((await sites.byId(siteId)) === null) return failed('site-missing');
  const existing = peerId === null ? null : await sites.peer(peerId);
  const namesake = (await sites.peersOf(siteId)).find((peer) => peer.name === form.name);
  if (namesake !== undefined && namesake.id !== peerId) return failed('name-taken', { what: 'peer', name: form.name });
  const address = form.address.length > 1 ? form.address.replace(/\/$/, '') : form.address;
  const peer: StoredPeer = {
    id: existing?.id ?? context.newId(),
    siteId,
    name: form.name,
    reach: form.reach,
    address,
    // Another address is another place: what was known of a practice line there no longer holds.
    practice: existing?.address === address ? existing.practice : false,
  };
  await sites.savePeer(peer);
  return done(peer);
}
