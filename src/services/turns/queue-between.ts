import { NEW_PEER, type Device, type StoredPeer, type StoredTurn } from '@/store';
import { done, failed, type BetweenOrder, type ConsoleFaultCode, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { crossingOf } from '../office/line-choice';
import { needsOf } from '../runs/start-run';
import { moveQueue } from './turn-desk';

/** The far end that an agent is for machines of an office: made when it is wanted first, called as its device is called now. */
async function farEndFor({ store, newId }: ConsoleContext, siteId: string, far: Device): Promise<StoredPeer> {
  const peers = await store.sites.peersOf(siteId);
  const existing = peers.find(({ agentId }) => agentId === far.id);
  const isTaken = peers.some(({ id, name }) => id !== existing?.id && name === far.name);
  const peer: StoredPeer = {
    ...(existing ?? { ...NEW_PEER, id: newId(), siteId, reach: 'between', address: '', agentId: far.id }),
    name: isTaken ? `${far.name}, as the far end` : far.name,
    farSiteId: far.siteId === siteId ? null : far.siteId,
  };
  await store.sites.savePeer(peer);
  return peer;
}

/** Puts a run from one agent to another into the queue; the other serves as its far end. Answers its id. */
export async function queueBetween(
  context: ConsoleContext,
  askedBy: string,
  { deviceId, farDeviceId, profile, pacedMbps }: BetweenOrder,
): Promise<Outcome<string, ConsoleFaultCode>> {
  const { sites, agents, turns } = context.store;
  const [device, far] = [await sites.device(deviceId), await sites.device(farDeviceId)];
  if (device === null || far === null) return failed('device-unknown');
  for (const each of [device, far])
    if (!((await agents.byDevice(each.id))?.can.includes('far-end') ?? false))
      return failed('far-end-needs-agents', { device: each.name });
  const nowMs = context.wallMs();
  const peer = await farEndFor(context, device.siteId, far);
  const turn: StoredTurn = {
    ...{ id: context.newId(), siteId: device.siteId, deviceId: device.id, deviceName: device.name },
    ...{ reach: 'between', peerId: peer.id, profile, pacedMbps, together: null, askedBy, place: 0 },
    needs: needsOf(device.siteId, peer, await crossingOf(context, device.siteId, peer, nowMs), device.link),
    ...{ askedAtMs: nowMs, seenAtMs: nowMs, status: 'waiting', runId: null, endedAtMs: null },
  };
  await turns.insert([turn]);
  await moveQueue(context);
  context.changes.tell('queue');
  return done(turn.id);
}
