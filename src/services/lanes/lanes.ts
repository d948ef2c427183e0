import { isLoad, type Lane, type LaneKind, type MachineFacts } from '@/core';
import type { Device, StoredLane } from '@/store';
import { done, failed, type ConsoleFaultCode, type NewLaneForm, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { seal, unseal } from '../console/sealed';
import { snmpLogin } from '../looks/snmp-logins';
import { startLanes, type NewLane } from './start-lanes';

/** So many lanes at a time a machine keeps. */
export const MOST_LANES = 24;

const laneOf = ({ id, name, kind, target, role, everyMs }: StoredLane): Lane => ({
  id,
  name,
  kind,
  target,
  role,
  everyMs,
});

/** What the agent must know beside the keeping of lanes. */
const ABLE: Partial<Record<LaneKind, string>> = { stamp: 'stamp', 'load-in': 'load', 'load-out': 'load' };
const isAble = (can: readonly string[], kind: LaneKind) => ABLE[kind] === undefined || can.includes(ABLE[kind]);

const keyName = (laneId: string) => `lane-key ${laneId}`;

/** With the key that it was given, or the login of the device whose ports it reads; both are kept sealed. */
async function withKey(context: ConsoleContext, siteId: string, lane: Lane): Promise<Lane> {
  const { store, signingKey } = context;
  if (isLoad(lane.kind)) {
    const login = await snmpLogin(context, siteId, hostOfLoad(lane.target), undefined);
    return { ...lane, key: login === null ? null : JSON.stringify(login) };
  }
  if (lane.kind !== 'stamp') return lane;
  const sealed = await store.keeping.setting(keyName(lane.id));
  return { ...lane, key: typeof sealed === 'string' ? unseal(signingKey, sealed) : null };
}

async function keepKey({ store, signingKey }: ConsoleContext, laneId: string, key: string): Promise<void> {
  await store.keeping.setSetting(keyName(laneId), key === '' ? null : seal(signingKey, key));
}

const hostOfLoad = (target: string) => target.replace(/\/\d+$/, '');

const isAsked = ({ removedAtMs }: StoredLane) => removedAtMs === null;

/** Tells a machine which lanes it is to keep, and whether somebody looks at them. */
export async function tellLanes(context: ConsoleContext, deviceId: string): Promise<void> {
  const [kept, agent] = await Promise.all([
    context.store.lanes.ofDevice(deviceId),
    context.store.agents.byDevice(deviceId),
  ]);
  const lanes = kept.filter((lane) => isAsked(lane) && isAble(agent?.can ?? [], lane.kind));
  const siteId = lanes[0]?.siteId;
  const asked = await Promise.all(lanes.map((lane) => withKey(context, lane.siteId, laneOf(lane))));
  context.standing.send(deviceId, {
    ...{ kind: 'lanes', lanes: asked, nowMs: context.wallMs() },
    live: siteId !== undefined && context.beats.isWatched(siteId),
  });
}

async function add(context: ConsoleContext, device: Pick<Device, 'id' | 'siteId'>, lane: NewLane, place: number) {
  const stored: StoredLane = {
    ...{ ...lane, id: context.newId(), siteId: device.siteId, deviceId: device.id, place },
    ...{ madeAtMs: context.wallMs(), removedAtMs: null, answeredAtMs: null },
  };
  await context.store.lanes.save(stored);
  return stored;
}

/** A machine that can keep lanes and has none yet begins with those that every office has; each is told which it is to keep. */
export async function beginLanes(
  context: ConsoleContext,
  device: Pick<Device, 'id' | 'siteId'>,
  { facts, can }: { readonly facts: MachineFacts; readonly can: readonly string[] },
  consoleHost: string | null,
): Promise<void> {
  if (!can.includes('lanes')) return;
  if ((await context.store.lanes.ofDevice(device.id)).length === 0) {
    // A server of somebody else's is not asked every second.
    const peers = (await context.store.sites.peersOf(device.siteId)).filter(
      ({ web, agentId }) => web === null && agentId === null,
    );
    for (const [place, lane] of startLanes(facts, peers, consoleHost).entries())
      await add(context, device, lane, place);
  }
  await tellLanes(context, device.id);
}

/** One more lane of a machine. */
export async function addLane(
  context: ConsoleContext,
  { deviceId, name, kind, target, role, everySeconds, key }: NewLaneForm,
): Promise<Outcome<StoredLane, ConsoleFaultCode>> {
  const agent = await context.store.agents.byDevice(deviceId);
  if (agent === null) return failed('agent-unknown');
  if (!isAble(agent.can, kind)) {
    const device = await context.store.sites.device(deviceId);
    return failed('agent-cannot', { agent: device?.name ?? 'That machine' });
  }
  const lanes = await context.store.lanes.ofDevice(deviceId);
  if (lanes.filter(isAsked).length >= MOST_LANES) return failed('too-many-lanes', { most: MOST_LANES });
  const everyMs = Math.round(everySeconds * 1000);
  const same = lanes.find((lane) => lane.kind === kind && lane.target === target);
  if (same !== undefined && isAsked(same)) return failed('lane-there', { name: same.name });
  const place = Math.max(-1, ...lanes.map((lane) => lane.place)) + 1;
  const lane =
    same === undefined
      ? await add(context, { id: deviceId, siteId: agent.siteId }, { name, kind, target, role, everyMs }, place)
      : { ...same, name, role, everyMs, removedAtMs: null };
  // One that was asked before goes on where it was.
  await context.store.lanes.save(lane);
  if (kind === 'stamp') await keepKey(context, lane.id, key?.trim() ?? '');
  await tellLanes(context, deviceId);
  return done(lane);
}

/** A lane is asked no more; what it said stays. */
export async function endLane(context: ConsoleContext, laneId: string): Promise<Outcome<null, 'lane-unknown'>> {
  const lane = await context.store.lanes.byId(laneId);
  if (lane === null || !isAsked(lane)) return failed('lane-unknown');
  await context.store.lanes.save({ ...lane, removedAtMs: context.wallMs() });
  await tellLanes(context, lane.deviceId);
  return done(null);
}
