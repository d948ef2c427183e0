import { isDeepStrictEqual } from 'node:util';
import { linkChanges } from '@/core';
import type { Device, StoredAgent } from '@/store';
import {
  AGENT_PROTOCOL,
  done,
  failed,
  type AgentHello,
  type ConsoleFaultCode,
  type JoinAgent,
  type JoinedAgent,
  type Outcome,
} from '@/wire';
import { admit, type Visitor } from '../access/visitor';
import type { ConsoleContext } from '../console/console-context';
import { deviceOfAnswers } from '../runs/device-of-answers';

/** Whether an agent is to be shown otherwise than before. */
const isAnother = (before: StoredAgent, now: StoredAgent) =>
  before.version !== now.version ||
  before.outbox !== now.outbox ||
  !isDeepStrictEqual(before.can, now.can) ||
  !isDeepStrictEqual({ ...before.facts, gatewayMs: null }, { ...now.facts, gatewayMs: null });

/** Writes down what an agent says of itself; what of its links is another than before is told. */
export async function noteHello(context: ConsoleContext, device: Pick<Device, 'id' | 'siteId'>, hello: AgentHello) {
  const { agents } = context.store;
  const nowMs = context.wallMs();
  const before = await agents.byDevice(device.id);
  const agent: StoredAgent = {
    deviceId: device.id,
    siteId: device.siteId,
    version: hello.version,
    protocol: hello.protocol,
    facts: hello.facts,
    can: hello.can,
    clockOffsetMs: hello.clockMs - nowMs,
    outbox: hello.outbox,
    joinedAtMs: before?.joinedAtMs ?? nowMs,
    seenAtMs: nowMs,
  };
  const changes = before === null ? [] : linkChanges(before.facts, hello.facts);
  await agents.save(agent);
  await agents.addChanges(
    changes.map((change) => ({
      ...change,
      id: context.newId(),
      deviceId: device.id,
      siteId: device.siteId,
      atMs: nowMs,
      seenAtMs: null,
    })),
  );
  const heardNew = await agents.hear(
    hello.neighbours.map(({ mac, address, name }) => ({
      ...{ siteId: device.siteId, deviceId: device.id, mac, address, name },
      lastAtMs: nowMs,
    })),
  );
  // Two hundred agents greet every few minutes: a board is drawn anew only where something else is to be seen.
  if (before === null || isAnother(before, agent) || changes.length > 0 || heardNew > 0)
    context.changes.tell('presence');
}

/** A technician knows all that were heard so far: who comes from now on is new. */
export async function noteNeighboursKnown(
  { store, wallMs }: ConsoleContext,
  siteId: string,
): Promise<Outcome<null, 'site-missing'>> {
  if ((await store.sites.byId(siteId)) === null) return failed('site-missing');
  await store.agents.noteKnown(siteId, wallMs());
  return done(null);
}

/** Whether console and agent understand each other. */
export const isUnderstood = ({ protocol }: Pick<AgentHello, 'protocol'>) => protocol === AGENT_PROTOCOL;

/** A machine enrols with a code: it becomes a device of the office, or the one of that name that nobody is yet. */
export async function joinAgent(
  context: ConsoleContext,
  visitor: Visitor,
  { name, spotName, link, hello }: JoinAgent,
): Promise<Outcome<JoinedAgent, ConsoleFaultCode>> {
  if (!isUnderstood(hello)) return failed('agent-other-version', { version: hello.version });
  const admission = await admit(context, visitor);
  if (!admission.ok) return admission;
  const { site, knownDeviceId } = admission.value;
  const namesake = (await context.store.sites.devicesOf(site.id)).find(
    (device) => device.name.toLocaleLowerCase() === name.toLocaleLowerCase(),
  );
  const place = spotName === '' ? null : spotName;
  const deviceId = namesake?.id ?? knownDeviceId;
  const answers = { deviceId, deviceName: name, deviceKind: 'box' as const, spotName: place, link };
  const device = await deviceOfAnswers(context, admission.value, visitor.address, answers);
  if (!device.ok) return device;
  await noteHello(context, device.value, hello);
  context.log.info({ device: device.value.name, version: hello.version }, 'agent joined');
  return done({ deviceId: device.value.id, deviceName: device.value.name, officeName: site.name });
}

/** The machine is an agent no more: it is sent away; its device and its runs stay. */
export async function retireAgent(context: ConsoleContext, deviceId: string): Promise<Outcome<null, 'agent-unknown'>> {
  const { agents, sites } = context.store;
  if ((await agents.byDevice(deviceId)) === null) return failed('agent-unknown');
  await agents.remove(deviceId);
  const device = await sites.device(deviceId);
  // Its cookie opens nothing any more: it would only come back.
  if (device !== null) await sites.saveDevice({ ...device, cookieAtMs: null, cookieBeforeMs: null });
  context.standing.dismiss(deviceId, 'removed');
  return done(null);
}

/** A technician has seen that a fact of a link changed. */
export async function noteChangeSeen(
  context: ConsoleContext,
  changeId: string,
): Promise<Outcome<null, 'link-change-unknown'>> {
  if ((await context.store.agents.change(changeId)) === null) return failed('link-change-unknown');
  await context.store.agents.noteSeen(changeId, context.wallMs());
  return done(null);
}
