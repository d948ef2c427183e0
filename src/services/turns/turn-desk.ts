import { aheadOf, holdOf, holdWords, RUN_PROFILES, type TurnClaim, type TurnState } from '@/core';
import type { StoredTurn } from '@/store';
import { done, failed, type ConsoleFaultCode, type Outcome, type RunAnswer, type StartRun } from '@/wire';
import type { ConsoleContext } from '../console-context';
import { grantRun, prepareRun, type PreparedRun } from '../start-run';
import type { Visitor } from '../visitor';

/** A device that waits asks every second; after so long without a word its turn is given back, ms. */
export const ASKS_WITHIN_MS = 10_000;
/** A device that stands by is told so long before its run begins, and may refuse, ms. */
export const NOTICE_MS = 4000;
/** Ended turns are kept for a while, so that a late answer is told what became of it. */
const KEEP_ENDED_MS = 24 * 3600_000;

const claimOf = (turn: StoredTurn): TurnClaim => turn;

/** Open turns as the rules see them, after those that are over were ended. */
export async function turnState(
  context: ConsoleContext,
): Promise<TurnState & { readonly open: readonly StoredTurn[] }> {
  const open = await context.store.turns.open();
  const nowMs = context.wallMs();
  // A device that measures, or was just asked to, is there, though it does not stand by meanwhile.
  const here = new Set(
    open.flatMap((turn) => {
      const asks = turn.askedBy === null && nowMs - turn.seenAtMs <= ASKS_WITHIN_MS;
      return asks || turn.status !== 'waiting' ? [turn.deviceId] : [];
    }),
  );
  return {
    open,
    running: open.filter(({ status }) => status !== 'waiting').map(claimOf),
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
      (turn.status === 'waiting' && turn.askedBy === null && nowMs - turn.seenAtMs > ASKS_WITHIN_MS) ||
      (turn.status === 'asked' && nowMs - turn.seenAtMs > NOTICE_MS + ASKS_WITHIN_MS);
    const over = turn.status === 'running' && (turn.runId === null || !running.has(turn.runId));
    if (!gone && !over) continue;
    await turns.update(turn.id, { status: gone ? 'given-back' : 'done', endedAtMs: nowMs });
    changed = true;
  }
  await turns.removeEndedBefore(nowMs - KEEP_ENDED_MS);
  return changed;
}

/** How long a turn may still have to wait, ms: what those before it usually take, less what they have had of it. */
export function aboutMs(turn: StoredTurn, state: Awaited<ReturnType<typeof turnState>>, nowMs: number): number {
  return aheadOf(turn, state).reduce((sum, { id }) => {
    const ahead = state.open.find((each) => each.id === id)!;
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
    profile: order.profile,
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

/**
 * A device asks for a run: it is granted at once when nothing else uses what it needs, and gets a place in the queue
 * otherwise. `origin`: the address by which the device opened the console.
 */
export async function askForRun(
  context: ConsoleContext,
  visitor: Visitor,
  order: StartRun,
  origin: string,
): Promise<Outcome<RunAnswer, ConsoleFaultCode>> {
  return context.turnDesk.run(async () => {
    const prepared = await prepareRun(context, visitor, order, origin);
    if (!prepared.ok) return prepared;
    const { device } = prepared.value;
    await settle(context);
    const { turns } = context.store;
    const nowMs = context.wallMs();
    const turn = await turnFor(context, prepared.value);
    if (turn === null) return failed('turn-over');
    if (turn.status === 'waiting') {
      await turns.update(turn.id, { seenAtMs: nowMs });
      const state = await turnState(context);
      const hold = holdOf(turn, state);
      if (hold !== null) {
        context.changes.tell();
        const waiting = { turnId: turn.id, deviceId: device.id, deviceName: device.name, why: holdWords(hold) };
        return done({ status: 'waiting', ...waiting, aboutMs: aboutMs(turn, state, nowMs) });
      }
    }
    const grant = await grantRun(context, prepared.value, turn);
    await turns.update(turn.id, { status: 'running', runId: grant.runId, seenAtMs: nowMs });
    context.changes.tell();
    return done({ status: 'granted', ...grant });
  });
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
          inMs: NOTICE_MS,
        });
      }
      changed = true;
    }
    if (changed) context.changes.tell();
  });
}

/** After a restart nobody has been told anything: turns that had come wait again, at their old place. */
export async function resumeQueue(context: ConsoleContext): Promise<void> {
  const nowMs = context.wallMs();
  for (const turn of await context.store.turns.open())
    if (turn.status !== 'running') await context.store.turns.update(turn.id, { status: 'waiting', seenAtMs: nowMs });
}
