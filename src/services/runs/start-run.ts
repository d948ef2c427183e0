import {
  ceilingOfLink,
  linkKindOf,
  lowerCeiling,
  RUN_PROFILES,
  yardstickBps,
  yardstickOf,
  type Direction,
  type Link,
  type Plan,
  type TurnNeed,
} from '@/core';
import { STARTED_RUN, type Device, type Line, type Site, type StoredPeer } from '@/store';
import { type ConsoleFaultCode, done, failed, type Outcome, type RunGrant, type StartRun } from '@/wire';
import { signTicket } from '@/wire/peer/ticket';
import type { ConsoleContext } from '../console/console-context';
import { peerBaseUrl } from '@/wire/address';
import { crossingOf, type Crossing } from '../office/line-choice';
import { farEndOf } from './far-end-of-run';
import { leastDirectionMs } from './long-look';
import { peerOfTurn, usualPeerId } from '../office/peer-choice';
import { proofOf } from '../console/proofs';
import { deviceOfAnswers } from './device-of-answers';
import { continuedSet } from './run-sets';
import { isOver, sweepSilentRuns } from './sweep-silent-runs';
import { admit, type Visitor } from '../access/visitor';

const TICKET_LIFE_MS = 60_000;

type Result<Value> = Promise<Outcome<Value, ConsoleFaultCode>>;

/** A run that could be granted: everything that it needs is known, and nothing of it has been taken yet. */
export interface PreparedRun {
  readonly order: StartRun;
  readonly site: Site;
  readonly device: Device;
  readonly peer: StoredPeer;
  /** Null: the far end is an agent, which is asked to serve when the run is granted. */
  readonly baseUrl: string | null;
  readonly line: Line | null;
  readonly plan: Plan | null;
  /** What no other run may use meanwhile. */
  readonly needs: readonly TurnNeed[];
}

/** How a run came about, beyond its order. */
export interface RunOrigin {
  readonly askedBy: string | null;
  readonly together: string | null;
}

/** The air of an access point, where the link goes over one. */
function airOf(siteId: string, link: Link): TurnNeed[] {
  if (link.medium !== 'wifi' || link.accessPoint === undefined) return [];
  return [`air:${siteId} ${link.accessPoint.toLocaleLowerCase()}`];
}

/**
 * What a run needs for itself: the provider's line, at both ends of a tunnel, or the port of the peer inside; and the air
 * of its access point.
 */
export function needsOf(
  siteId: string,
  { reach, id: peerId, web, agentId }: Pick<StoredPeer, 'reach' | 'id' | 'web' | 'agentId'>,
  { line, farLine }: Pick<Crossing, 'line' | 'farLine'>,
  link: Link,
): TurnNeed[] {
  const lines = [line, farLine].flatMap((each): TurnNeed[] => (each === null ? [] : [`line:${each.id}`]));
  const servers = (web?.pages ?? []).map((page: string): TurnNeed => `web:${new URL(page).host}`);
  if (agentId !== null) return [...lines, `box:${agentId}`, ...airOf(siteId, link)];
  const path: TurnNeed[] = [
    ...(reach === 'local' || lines.length === 0 ? [`peer:${peerId}` as const] : lines),
    ...servers,
  ];
  return [...path, ...airOf(siteId, link)];
}

/**
 * Takes down who wants to measure what. The device is entered, or brought up to date.
 * `origin`: the address by which the device opened the console.
 */
export async function prepareRun(
  context: ConsoleContext,
  visitor: Visitor,
  order: StartRun,
  origin: string,
): Result<PreparedRun> {
  if (order.profile === 'paced' && order.pacedMbps === null)
    return failed('request-malformed', { complaint: 'pacedMbps: a paced run needs a rate' });
  const admission = await admit(context, { ...visitor, code: order.code });
  if (!admission.ok) return admission;
  const { site } = admission.value;
  const { runs } = context.store;
  const turn = order.turnId === null ? null : await context.store.turns.byId(order.turnId);
  const peer = await peerOfTurn(context, site.id, {
    ...{ reach: order.reach, peerId: turn?.peerId ?? null, loadsWeb: order.loadsWeb },
  });
  const baseUrl = peer === null || peer.agentId !== null ? null : peerBaseUrl(peer.address, origin);
  // Between two machines nobody measures who was not asked to: the turn says to which.
  const isUnasked = order.reach === 'between' && turn?.peerId === undefined;
  if (peer === null || isUnasked || (peer.agentId === null && baseUrl === null))
    return failed('peer-missing', { reach: order.reach });
  if (peer.agentId !== null && !context.standing.isPresent(peer.agentId))
    return failed('far-end-away', { peer: peer.name });
  if (peer.otherKey !== null) return failed('peer-key-changed', { peer: peer.name });
  if (peer.web !== null && !order.loadsWeb)
    return failed('web-needs-agent', { peer: peer.name, device: order.deviceName ?? 'this device' });
  if (peer.web !== null && order.profile === 'paced') return failed('web-not-paced', { peer: peer.name });
  if (peer.web === null && origin.startsWith('https:') && baseUrl?.startsWith('http:') === true)
    return failed('peer-plain', { peer: peer.name });
  const found = await deviceOfAnswers(context, admission.value, visitor.address, order);
  if (!found.ok) return found;
  const device = found.value;
  const nowMs = context.wallMs();
  if (order.turnId === null) {
    const { runsOfDevice, runsOfAddress } = context.uses;
    const seconds = runsOfDevice.use(device.id, nowMs) ?? runsOfAddress.use(visitor.address ?? 'unknown', nowMs);
    if (seconds !== null) return failed('too-many-runs', { seconds });
  }
  const busy = (await runs.running()).find((run) => run.deviceId === device.id);
  if (busy !== undefined && !isOver(context, busy, nowMs)) return failed('device-busy', { device: device.name });
  if (busy !== undefined) await sweepSilentRuns(context);
  const crossing = await crossingOf(context, site.id, peer, nowMs);
  const needs = needsOf(site.id, peer, crossing, device.link);
  return done({ order, site, device, peer, baseUrl, ...crossing, needs });
}

/** Where a device stands, by the name of its spot; null: nobody has said. */
async function spotNameOf({ store }: ConsoleContext, { siteId, spotId }: Device): Promise<string | null> {
  return (await store.sites.spotsOf(siteId)).find(({ id }) => id === spotId)?.name ?? null;
}

/** Grants a prepared run: writes it down as running, with its conditions, and signs the ticket for the peer. */
export async function grantRun(
  context: ConsoleContext,
  prepared: PreparedRun,
  { askedBy, together }: RunOrigin,
): Result<RunGrant> {
  const { order, site, device, peer, line, plan } = prepared;
  const { runs } = context.store;
  const nowMs = context.wallMs();
  const usualId = await usualPeerId(context, site.id, order.reach, await context.store.sites.peersOf(site.id));
  const [runId, ticketId] = [context.newId(), context.newId()];
  const forMs = RUN_PROFILES[order.profile].limits.seconds * 1000 + TICKET_LIFE_MS;
  const far = await farEndOf(context, { ...prepared, forMs }, runId);
  if (!far.ok) return far;
  const { baseUrl, peerKey, link: farLink } = far.value;
  const profile = RUN_PROFILES[order.profile];
  const conditions = {
    siteId: site.id,
    deviceId: device.id,
    peerId: peer.id,
    lineId: line?.id ?? null,
    reach: order.reach,
    link: device.link,
    linkKind: linkKindOf(device.link),
    plan,
    spotName: await spotNameOf(context, device),
    profile: order.profile,
    told: order.told,
    together,
  };
  const continued = await continuedSet(context, conditions, nowMs);
  const alone = together === null && !peer.practice && !device.simulated;
  await runs.insert({
    ...STARTED_RUN,
    ...conditions,
    id: runId,
    ticketId,
    setId: continued ?? runId,
    askedBy,
    noticed: order.noticed,
    deviceName: device.name,
    peerName: peer.name,
    lineName: line?.name ?? null,
    practice: peer.practice,
    farEnd: peer.agentId !== null ? 'agent' : peer.web === null ? 'peer' : 'web',
    farLink,
    // Between machines each has an other end of its own.
    otherPeerThanUsual: order.reach !== 'between' && usualId !== null && usualId !== peer.id,
    startedAtMs: nowMs,
    lastSeenAtMs: nowMs,
    // Whatever is heard of it after that, its ticket is over.
    untilMs: nowMs + profile.limits.seconds * 1000,
  });
  context.log.info(
    { run: runId, device: device.name, reach: order.reach, profile: order.profile, askedBy },
    'run granted',
  );
  const own = ceilingOfLink(device.link, 4);
  const ceiling =
    order.reach === 'between' ? lowerCeiling(own, farLink === null ? null : ceilingOfLink(farLink, 4)) : own;
  const yardstick = (direction: Direction) =>
    yardstickBps(yardstickOf({ reach: order.reach, direction, plan, ceiling }));
  const ticket = signTicket(
    {
      id: ticketId,
      peerKey,
      runId,
      deviceId: device.id,
      directions: ['down', 'up'],
      limits: { ...profile.limits, streams: profile.streams.most },
      issuedAtMs: nowMs,
      expiresAtMs: nowMs + TICKET_LIFE_MS,
    },
    context.signingKey,
  );
  return done({
    runId,
    runKey: proofOf(context.signingKey, 'run', runId),
    ticket,
    peer: { name: peer.name, baseUrl },
    profile: order.profile,
    pacedBps: order.pacedMbps === null ? null : order.pacedMbps * 1e6,
    leastDirectionMs: leastDirectionMs({ ...conditions, alone, again: continued !== null }, line, nowMs),
    web: peer.web,
    deviceId: device.id,
    deviceName: device.name,
    yardstick: { downBps: yardstick('down'), upBps: yardstick('up') },
  });
}
