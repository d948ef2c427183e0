import { aheadOf, holdOf, holdWords, RUN_PROFILES, type TurnClaim, type TurnState } from '@/core';
import type { StoredLook, StoredTurn } from '@/store';
import { done, failed, type ConsoleFaultCode, type Outcome, type RunAnswer, type StartRun } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { crossingOf } from '../office/line-choice';
import { fillsLine, needsOfLook } from '../looks/far-look';
import { peerOfTurn, webLoaders } from '../office/peer-choice';
import { grantRun, needsOf, prepareRun, type PreparedRun } from '../runs/start-run';
import { proofOf } from '../console/proofs';
import type { Visitor } from '../access/visitor';
import { ASKS_WITHIN_MS } from '../console/waiting-devices';

/** A device that stands by is told so long before its run begins, and may refuse, ms. */
export const NOTICE_MS = 4000;
/** What a look at something usually takes, ms. */
const LOOK_TAKES_MS = 15_000;
/** Ended turns are kept for a while, so that a late answer is told what became of it. */
const KEEP_ENDED_MS = 24 * 3600_000;

const claimOf = (turn: StoredTurn): TurnClaim => turn;
/** Whoever looks at something does not measure meanwhile: each would see the other. One that fills the line takes that too. */
async function claimOfLook(context: ConsoleContext, look: StoredLook): Promise<TurnClaim> {
  const { id, deviceId, deviceName, asked } = look;
  const device = fillsLine(asked) ? await context.store.sites.device(deviceId) : null;
  const needs = device === null ? [] : await needsOfLook(context, device, asked);
  return { id, deviceId, deviceName, needs, together: null };
}

/**
 * Turns that wait, with what they need now: a line that was switched, a peer that was pinned or a device that moved to
 * another access point since they were asked for changes that. What runs keeps what it was granted.
 */
async function withNeedsOfNow(context: ConsoleContext, open: readonly StoredTurn[]): Promise<StoredTurn[]> {
  const { sites } = context.store;
  const nowMs = context.wallMs();
  const paths = new Map<string, ReturnType<typeof pathOf>>();
  const loads = webLoaders(context);
  const pathOf = async ({ siteId, reach, peerId }: StoredTurn, loadsWeb: boolean) => {
    const peer = await peerOfTurn(context, siteId, { reach, peerId, loadsWeb });
    return peer === null ? null : { peer, crossing: await crossingOf(context, siteId, peer, nowMs) };
  };
  return Promise.all(
    open.map(async (turn): Promise<StoredTurn> => {
      if (turn.status !== 'waiting') return turn;
      const loadsWeb = await loads(turn.siteId, turn.deviceId);
      const key = `${turn.siteId} ${turn.reach} ${turn.peerId ?? ''} ${loadsWeb}`;
      if (!paths.has(key)) paths.set(key, pathOf(turn, loadsWeb));
      const [path, device] = await Promise.all([paths.get(key)!, sites.device(turn.deviceId)]);
      if (path === null || device === null) return turn;
      return { ...turn, needs: needsOf(turn.siteId, path.peer, path.crossing, device.link) };
    }),
  );
}

/** Open turns as the rules see them, after those that are over were ended. */
export async function turnState(
  context: ConsoleContext,
): Promise<TurnState & { readonly open: readonly StoredTurn[] }> {
  const [open, looking] = [
    await withNeedsOfNow(context, await context.store.turns.open()),
    await context.store.looks.underWay(),
  ];
  const nowMs = context.wallMs();
  // A device that measures, or was just asked to, is there, though it does not stand by meanwhile.
  const here = new Set(
    open.flatMap((turn) => {
      const asks = turn.askedBy === null && context.waiting.isHere(turn.id, nowMs);
      return asks || turn.status !== 'waiting' ? [turn.deviceId] : [];
    }),
  );
  return {
    open,
    running: [
      ...open.filter(({ status }) => status !== 'waiting').map(claimOf),
      ...(await Promise.all(looking.map((look) => claimOfLook(context, look)))),
    ],
    waiting: open.filter(({ status }) => status === 'waiting').map(claimOf),
    isPresent: (deviceId) => here.has(deviceId) || context.standing.isPresent(deviceId),
  };
}

/** Ends turns whose run has ended, and gives back those whose device has vanished. True when there were any. */
async function settle(context: ConsoleContext): Promise<boolean> {
  const { turns, runs } = context.store;
  const nowMs = context.wallMs();
  const running = new Set((await runs.running()).map(({ id }) => id));
  let changed = false;
  for (const turn of await turns.open()) {
    const gone =
      (turn.status === 'waiting' && turn.askedBy === null && !context.waiting.isHere(turn.id, nowMs)) ||
      (turn.status === 'asked' && nowMs - turn.seenAtMs > NOTICE_MS + ASKS_WITHIN_MS);
    const over = turn.status === 'running' && (turn.runId === null || !running.has(turn.runId));
    if (!gone && !over) continue;
    await turns.update(turn.id, { status: gone ? 'given-back' : 'done', endedAtMs: nowMs });
    context.waiting.forget(turn.id);
    changed = true;
  }
  return changed;
}

/** Forgets turns that ended long ago. */
export async function forgetOldTurns(context: ConsoleContext): Promise<void> {
  await context.store.turns.removeEndedBefore(context.wallMs() - KEEP_ENDED_MS);
}

/** How long a turn may still have to wait, ms: what those before it usually take, less what they have had of it. */
export function aboutMs(turn: StoredTurn, state: Awaited<ReturnType<typeof turnState>>, nowMs: number): number {
  return aheadOf(turn, state).reduce((sum, { id }) => {
    const ahead = state.open.find((each) => each.id === id);
    if (ahead === undefined) return sum + LOOK_TAKES_MS;
    const { typicalMs } = RUN_PROFILES[ahead.profile];
    return sum + (ahead.status === 'waiting' ? typicalMs : Math.max(1000, typicalMs - (nowMs - ahead.seenAtMs)));
  }, 0);
}

async function turnFor(
  context: ConsoleContext,
  { order, site, device, needs }: PreparedRun,
): Promise<StoredTurn | null> {
  const { turns } = context.store;
  const nowMs = context.wallMs();
  if (order.turnId !== null) {
    const turn = await turns.byId(order.turnId);
    const its = turn?.deviceId === device.id && turn.reach === order.reach;
    return its && (turn.status === 'waiting' || turn.status === 'asked') ? turn : null;
  }
  const turn: StoredTurn = {
    id: context.newId(),
    siteId: site.id,
    deviceId: device.id,
    deviceName: device.name,
    reach: order.reach,
    peerId: null,
    profile: order.profile,
    pacedMbps: order.pacedMbps,
    needs: [...needs],
    together: null,
    askedBy: null,
    askedAtMs: nowMs,
    place: 0,
    seenAtMs: nowMs,
    status: 'waiting',
    runId: null,
    endedAtMs: null,
  };
  await turns.insert([turn]);
  return turn;
}

type Decided = Promise<Outcome<RunAnswer, ConsoleFaultCode>>;

/** Takes what a run needs at the moment of its grant, whatever was known when it was asked for. */
async function decide(context: ConsoleContext, prepared: PreparedRun, turn: StoredTurn): Decided {
  const { turns } = context.store;
  const { device, needs } = prepared;
  const nowMs = context.wallMs();
  const current = { ...turn, needs: [...needs] };
  if (turn.status === 'waiting') {
    context.waiting.note(turn.id, nowMs);
    const state = await turnState(context);
    const hold = holdOf(current, replaced(state, current));
    if (hold !== null)
      return done({
        status: 'waiting',
        ...{ turnId: turn.id, turnKey: proofOf(context.signingKey, 'turn', turn.id) },
        ...{ deviceId: device.id, deviceName: device.name, why: holdWords(hold) },
        aboutMs: aboutMs(turn, state, nowMs),
      });
  }
  const granted = await grantRun(context, prepared, turn);
  if (!granted.ok) {
    await turns.update(turn.id, { status: 'given-back', endedAtMs: nowMs });
    context.waiting.forget(turn.id);
    context.changes.tell('queue');
    return granted;
  }
  const grant = granted.value;
  await turns.update(turn.id, { status: 'running', runId: grant.runId, seenAtMs: nowMs, needs: current.needs });
  context.waiting.forget(turn.id);
  context.changes.tell('queue', 'runs');
  return done({ status: 'granted', ...grant });
}

/** The same state, with one turn as it is now. */
function replaced(state: TurnState, turn: StoredTurn): TurnState {
  return { ...state, waiting: state.waiting.map((other) => (other.id === turn.id ? claimOf(turn) : other)) };
}

async function askOnce(
  context: ConsoleContext,
  visitor: Visitor,
  order: StartRun,
  origin: string,
): Promise<Outcome<RunAnswer, ConsoleFaultCode>> {
  return context.turnDesk.run(async () => {
    const prepared = await prepareRun(context, visitor, order, origin);
    if (!prepared.ok) return prepared;
    const changed = await settle(context);
    const turn = await turnFor(context, prepared.value);
    if (turn === null) return failed('turn-over');
    const decided = await decide(context, prepared.value, turn);
    if (!decided.ok) return decided;
    const answer = decided.value;
    // A place in the queue that is new, and turns that ended, are seen on boards; asking again is not.
    if (changed || (answer.status === 'waiting' && order.turnId === null)) context.changes.tell('queue', 'runs');
    return done(answer);
  });
}

/** Resolves at the next change of anything on the console, or when the time is up. */
function nextChange({ changes }: ConsoleContext, mostMs: number): Promise<void> {
  return new Promise((resolve) => {
    const end = () => {
      clearTimeout(timer);
      stop();
      resolve();
    };
    const timer = setTimeout(end, mostMs);
    const stop = changes.listen(end);
  });
}

/**
 * A device asks for a run: it is granted at once when nothing else uses what it needs, and gets a place in the queue
 * otherwise. A device that asks again with its turn may let the answer be held back (`holdMs`) until that has come, so
 * that it is told at once. `origin`: the address by which the device opened the console.
 */
export async function askForRun(
  context: ConsoleContext,
  visitor: Visitor,
  order: StartRun,
  origin: string,
): Promise<Outcome<RunAnswer, ConsoleFaultCode>> {
  const untilMs = performance.now() + order.holdMs;
  let current = order;
  for (;;) {
    const asked = await askOnce(context, visitor, current, origin);
    if (!asked.ok || asked.value.status !== 'waiting') return asked;
    const leftMs = untilMs - performance.now();
    if (leftMs <= 0) return asked;
    const { turnId, deviceId } = asked.value;
    const release = context.waiting.hold(turnId, context.wallMs);
    await nextChange(context, leftMs);
    release();
    current = { ...current, turnId, deviceId };
  }
}

/** Tells the devices whose turn has come. Called when something ended, came or went, and every second. */
export async function moveQueue(context: ConsoleContext): Promise<void> {
  await context.turnDesk.run(async () => {
    let changed = await settle(context);
    for (;;) {
      const state = await turnState(context);
      const next = state.open.find(
        (turn) => turn.status === 'waiting' && turn.askedBy !== null && holdOf(turn, state) === null,
      );
      if (next === undefined) break;
      const group = state.open.filter(
        (turn) => turn.id === next.id || (next.together !== null && turn.together === next.together),
      );
      const nowMs = context.wallMs();
      for (const turn of group) {
        await context.store.turns.update(turn.id, { status: 'asked', seenAtMs: nowMs });
        context.standing.send(turn.deviceId, {
          kind: 'asked',
          turnId: turn.id,
          by: turn.askedBy ?? '',
          reach: turn.reach,
          profile: turn.profile,
          pacedMbps: turn.pacedMbps,
          inMs: NOTICE_MS,
        });
      }
      changed = true;
    }
    if (changed) context.changes.tell('queue', 'runs');
  });
}

/** After a restart nobody has been told anything: turns that had come wait again, at their old place. */
export async function resumeQueue(context: ConsoleContext): Promise<void> {
  const nowMs = context.wallMs();
  for (const turn of await context.store.turns.open())
    if (turn.status !== 'running') {
      if (turn.status === 'asked') await context.store.turns.update(turn.id, { status: 'waiting', seenAtMs: nowMs });
      // Whoever waits gets the usual time to come back.
      context.waiting.note(turn.id, nowMs);
    }
}
