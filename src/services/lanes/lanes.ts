import { isLoad, type Lane, type LaneKind, type LaneRole, type MachineFacts } from '@/core';
import type { Device, StoredAgent, StoredLane } from '@/store';
import { done, failed, type ConsoleFaultCode, type NewLaneForm, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { seal, unseal } from '../console/sealed';
import { snmpLogin } from '../looks/snmp-logins';
import { MOST_PAGE_LANES, pageLane } from './page-lanes';
import { radioLanes, startLanes, type NewLane } from './start-lanes';

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
const ABLE: Readonly<Record<Exclude<LaneKind, 'probe'>, string>> = {
  ...{ echo: 'lanes', connect: 'lanes', web: 'lanes', stamp: 'stamp', 'load-in': 'load', 'load-out': 'load' },
  ...{ signal: 'radio', 'link-rate': 'radio', retries: 'radio' },
};
/** A page asks peers; an agent everything else, as far as it knows how. */
function isAble(agent: Pick<StoredAgent, 'can'> | null, kind: LaneKind): boolean {
  if (agent === null || kind === 'probe') return agent === null && kind === 'probe';
  return agent.can.includes(ABLE[kind]);
}

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
  const lanes = kept.filter((lane) => isAsked(lane) && isAble(agent, lane.kind));
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
    const radios = can.includes('radio') ? radioLanes(facts) : [];
    for (const [place, lane] of [...startLanes(facts, peers, consoleHost), ...radios].entries())
      await add(context, device, lane, place);
  }
  await tellLanes(context, device.id);
}

/** A page that stands by is told which lanes it is to keep, where there are any. */
export async function resumePageLanes(context: ConsoleContext, deviceId: string): Promise<void> {
  const [lanes, agent] = await Promise.all([
    context.store.lanes.ofDevice(deviceId),
    context.store.agents.byDevice(deviceId),
  ]);
  if (agent === null && lanes.some(isAsked)) await tellLanes(context, deviceId);
}

/** Of whom a lane is wanted: in which office, what stands at its end, and how many such a machine keeps at most. */
async function keeperOf(
  context: ConsoleContext,
  form: NewLaneForm,
): Promise<Outcome<{ readonly siteId: string; readonly role: LaneRole; readonly most: number }, ConsoleFaultCode>> {
  const { deviceId, kind, role } = form;
  const agent = await context.store.agents.byDevice(deviceId);
  if (agent === null) {
    const page = await pageLane(context, form);
    return page.ok ? done({ ...page.value, most: MOST_PAGE_LANES }) : page;
  }
  if (isAble(agent, kind)) return done({ siteId: agent.siteId, role, most: MOST_LANES });
  const device = await context.store.sites.device(deviceId);
  return failed('agent-cannot', { agent: device?.name ?? 'That machine' });
}

/** One more lane of a machine. */
export async function addLane(
  context: ConsoleContext,
  form: NewLaneForm,
): Promise<Outcome<StoredLane, ConsoleFaultCode>> {
  const keeper = await keeperOf(context, form);
  if (!keeper.ok) return keeper;
  const { siteId, role, most } = keeper.value;
  const { deviceId, name, kind, target, everySeconds, key } = form;
  const lanes = await context.store.lanes.ofDevice(deviceId);
  if (lanes.filter(isAsked).length >= most) return failed('too-many-lanes', { most });
  const everyMs = Math.round(everySeconds * 1000);
  const same = lanes.find((lane) => lane.kind === kind && lane.target === target);
  if (same !== undefined && isAsked(same)) return failed('lane-there', { name: same.name });
  const place = Math.max(-1, ...lanes.map((lane) => lane.place)) + 1;
  const lane =
    same === undefined
      ? await add(context, { id: deviceId, siteId }, { name, kind, target, role, everyMs }, place)
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
