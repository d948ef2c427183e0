import type { LaneRole } from '@/core';
import type { StoredLane, StoredPeer } from '@/store';
import { done, failed, type ConsoleFaultCode, type LaneTicket, type NewLaneForm, type Outcome } from '@/wire';
import { peerBaseUrl } from '@/wire/address';
import { signTicket } from '@/wire/peer/ticket';
import { deviceOfCookie } from '../access/device-cookie';
import type { ConsoleContext } from '../console/console-context';
import { ROLE_OF_REACH } from './start-lanes';

/** So many lanes a page keeps: each is a connection of a phone, and a packet a second. */
export const MOST_PAGE_LANES = 4;
/** After that the page asks for a new one. */
const WATCH_SECONDS = 3600;
const TICKET_LIFE_MS = 60_000;
/** Of a probe and its echo a second, headers included, with room to spare. */
const WATCH_BYTES = 1e6;

/** A page reaches what answers its protocol: a peer of ours, and no agent that serves for single runs alone. */
export const isWatchable = ({ web, agentId, otherKey }: StoredPeer) =>
  web === null && agentId === null && otherKey === null;

/** The peer that a page of an office is to ask, and what stands there. */
export async function peerOfPageLane(
  { store }: ConsoleContext,
  siteId: string,
  peerId: string,
): Promise<{ readonly peer: StoredPeer; readonly role: LaneRole } | null> {
  const peer = await store.sites.peer(peerId);
  return peer === null || peer.siteId !== siteId || !isWatchable(peer)
    ? null
    : { peer, role: ROLE_OF_REACH[peer.reach] };
}

/** What a device without an agent may be asked to keep, checked. */
export async function pageLane(
  context: ConsoleContext,
  { deviceId, kind, target }: Pick<NewLaneForm, 'deviceId' | 'kind' | 'target'>,
): Promise<Outcome<{ readonly siteId: string; readonly role: LaneRole }, ConsoleFaultCode>> {
  const device = await context.store.sites.device(deviceId);
  if (device === null) return failed('device-unknown');
  if (kind !== 'probe') return failed('page-asks-peers', { device: device.name });
  const found = await peerOfPageLane(context, device.siteId, target);
  return found === null ? failed('lane-peer-missing') : done({ siteId: device.siteId, role: found.role });
}

/** A ticket with which the page of a device goes on asking a peer, for an hour. `origin`: by which the page reaches the console. */
export async function laneTicket(
  context: ConsoleContext,
  cookie: string | null,
  laneId: string,
  origin: string,
): Promise<Outcome<LaneTicket, ConsoleFaultCode>> {
  const device = await deviceOfCookie(context, cookie);
  if (device === null) return failed('not-joined');
  const lane: StoredLane | null = await context.store.lanes.byId(laneId);
  if (lane === null || lane.deviceId !== device.id || lane.kind !== 'probe' || lane.removedAtMs !== null)
    return failed('lane-unknown');
  const found = await peerOfPageLane(context, lane.siteId, lane.target);
  const baseUrl = found === null ? null : peerBaseUrl(found.peer.address, origin);
  if (found === null || baseUrl === null) return failed('lane-peer-missing');
  if (origin.startsWith('https:') && baseUrl.startsWith('http:'))
    return failed('peer-plain', { peer: found.peer.name });
  const issuedAtMs = context.wallMs();
  const ticket = signTicket(
    {
      ...{ id: context.newId(), peerKey: found.peer.publicKey, runId: laneId, deviceId: device.id, watch: true },
      ...{ directions: ['down'], limits: { seconds: WATCH_SECONDS, bytes: WATCH_BYTES, streams: 1 } },
      ...{ issuedAtMs, expiresAtMs: issuedAtMs + TICKET_LIFE_MS },
    },
    context.signingKey,
  );
  return done({ baseUrl, ticket, seconds: WATCH_SECONDS });
}
