import { holdOf, holdWords, type ProfileName, type Reach, type TurnNeed } from '@/core';
import type { Device, StoredPeer, StoredTurn } from '@/store';
import { done, failed, type ConsoleFaultCode, type Outcome, type QueueOrder } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { crossingOf, type Crossing } from '../office/line-choice';
import { peerOfTurn, webLoaders } from '../office/peer-choice';
import { provesIt } from '../console/proofs';
import { needsOf } from '../runs/start-run';
import { aboutMs, moveQueue, turnState } from './turn-desk';

/** Puts a whole round into the queue: each reach after the other, each time through all devices. Answers how many. */
export async function queueTurns(
  context: ConsoleContext,
  askedBy: string,
  order: QueueOrder,
): Promise<Outcome<number, ConsoleFaultCode>> {
  const queued = await queueAll(context, askedBy, order);
  return queued.ok ? done(queued.value.length) : queued;
}

/** Puts one turn into the queue, of one device and reach, to a certain peer or to the usual one. Answers its id. */
export async function queueTurn(
  context: ConsoleContext,
  askedBy: string,
  order: QueueOrder,
  peerId: string | null = null,
): Promise<Outcome<string, ConsoleFaultCode>> {
  const queued = await queueAll(context, askedBy, order, peerId);
  return queued.ok ? done(queued.value[0]!.id) : queued;
}

/** To which peer, and what is crossed on the way. */
interface Way {
  readonly peer: StoredPeer;
  readonly crossing: Crossing;
}

async function queueAll(
  context: ConsoleContext,
  askedBy: string,
  order: QueueOrder,
  peerId: string | null = null,
): Promise<Outcome<readonly StoredTurn[], ConsoleFaultCode>> {
  const { sites, turns } = context.store;
  const site = await sites.byId(order.siteId);
  if (site === null) return failed('site-missing');
  const devices = await sites.devicesOf(site.id);
  const chosen = order.deviceIds.map((id) => devices.find((device) => device.id === id));
  if (chosen.includes(undefined)) return failed('device-unknown');
  const asked: StoredTurn[] = [];
  const nowMs = context.wallMs();
  const loads = webLoaders(context);
  for (const reach of order.reaches) {
    // Those that can load a web server may go another way than the rest.
    const ways = new Map<boolean, Way>();
    const needs = new Map<string, readonly TurnNeed[]>();
    for (const { id: deviceId, name, link } of chosen as Device[]) {
      const loadsWeb = await loads(site.id, deviceId);
      const peer = ways.get(loadsWeb)?.peer ?? (await peerOfTurn(context, site.id, { reach, peerId, loadsWeb }));
      if (peer === null) return failed('peer-missing', { reach });
      if (peer.otherKey !== null) return failed('peer-key-changed', { peer: peer.name });
      if (peer.web !== null && !loadsWeb) return failed('web-needs-agent', { peer: peer.name, device: name });
      const crossing = ways.get(loadsWeb)?.crossing ?? (await crossingOf(context, site.id, peer, nowMs));
      ways.set(loadsWeb, { peer, crossing });
      needs.set(deviceId, needsOf(site.id, peer, crossing, link));
    }
    for (let time = 0; time < order.times; time += 1) {
      // One device alone shares with nobody.
      const together = order.together && chosen.length > 1 ? context.newId() : null;
      for (const device of chosen)
        asked.push({
          id: context.newId(),
          siteId: site.id,
          deviceId: device!.id,
          deviceName: device!.name,
          reach,
          peerId,
          profile: order.profile,
          pacedMbps: null,
          needs: [...needs.get(device!.id)!],
          together,
          askedBy,
          askedAtMs: nowMs,
          place: asked.length,
          seenAtMs: nowMs,
          status: 'waiting',
          runId: null,
          endedAtMs: null,
        });
    }
  }
  await turns.insert(asked);
  await moveQueue(context);
  context.changes.tell('queue');
  return done(asked);
}

async function endTurn(context: ConsoleContext, turnId: string, status: 'refused' | 'withdrawn', deviceId?: string) {
  await context.turnDesk.run(async () => {
    const turn = await context.store.turns.byId(turnId);
    const open = turn?.status === 'waiting' || turn?.status === 'asked';
    if (turn === null || !open || (deviceId !== undefined && turn.deviceId !== deviceId)) return;
    await context.store.turns.update(turnId, { status, endedAtMs: context.wallMs() });
    if (status === 'withdrawn') context.standing.send(turn.deviceId, { kind: 'withdrawn', turnId });
  });
  await moveQueue(context);
  context.changes.tell('queue');
}

/** A device that waits for a turn does not want it any more. False when the key does not prove that the turn is its own. */
export async function giveTurnBack(context: ConsoleContext, turnId: string, turnKey: string): Promise<boolean> {
  if (!provesIt(context.signingKey, 'turn', turnId, turnKey)) return false;
  context.waiting.forget(turnId);
  await endTurn(context, turnId, 'withdrawn');
  return true;
}

/** The technician does not want a turn any more: one that waits leaves the queue, of one that is running the device is told to end it. */
export async function stopTurn(context: ConsoleContext, turnId: string): Promise<void> {
  const turn = await context.store.turns.byId(turnId);
  if (turn?.status === 'running' && turn.runId !== null) return context.live.stop(turn.runId);
  return withdrawTurn(context, turnId);
}

/** Takes a turn out of the queue. One that is running already goes on. */
export function withdrawTurn(context: ConsoleContext, turnId: string): Promise<void> {
  return endTurn(context, turnId, 'withdrawn');
}

/** Whoever sits at the device does not want it to run now. */
export function refuseTurn(context: ConsoleContext, deviceId: string, turnId: string): Promise<void> {
  return endTurn(context, turnId, 'refused', deviceId);
}

/** So long a refusal is shown to whoever asked, ms. */
const SHOW_REFUSED_MS = 10 * 60_000;

/** A line of the tray. */
export interface TrayTurn {
  readonly turnId: string;
  readonly deviceName: string;
  readonly reach: Reach;
  readonly profile: ProfileName;
  readonly askedBy: string | null;
  readonly together: boolean;
  readonly state:
    | { readonly status: 'running'; readonly runId: string; readonly sinceMs: number }
    | { readonly status: 'asked' }
    /** Whoever sits at the device said not now. */
    | { readonly status: 'refused'; readonly atMs: number }
    | { readonly status: 'waiting'; readonly why: string; readonly aboutMs: number };
}

/** What runs and what waits at a site, in order. */
export async function trayOf(context: ConsoleContext, siteId: string): Promise<TrayTurn[]> {
  const state = await turnState(context);
  const nowMs = context.wallMs();
  const stateOf = (turn: StoredTurn): TrayTurn['state'] => {
    if (turn.status === 'running') return { status: 'running', runId: turn.runId!, sinceMs: turn.seenAtMs };
    if (turn.status === 'asked') return { status: 'asked' };
    if (turn.status === 'refused') return { status: 'refused', atMs: turn.endedAtMs ?? nowMs };
    const hold = holdOf(turn, state);
    return {
      status: 'waiting',
      why: hold === null ? 'its turn has come' : holdWords(hold),
      aboutMs: aboutMs(turn, state, nowMs),
    };
  };
  const refused = await context.store.turns.refusedSince(siteId, nowMs - SHOW_REFUSED_MS);
  return [...state.open, ...refused]
    .filter((turn) => turn.siteId === siteId)
    .map((turn) => ({
      turnId: turn.id,
      deviceName: turn.deviceName,
      reach: turn.reach,
      profile: turn.profile,
      askedBy: turn.askedBy,
      together: turn.together !== null,
      state: stateOf(turn),
    }));
}
