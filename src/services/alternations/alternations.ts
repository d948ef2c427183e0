import { nextStep, type AlternationStep } from '@/core';
import type { StoredAlternation } from '@/store';
import { done, failed, type AlternationForm, type ConsoleFaultCode, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { makeComparison } from '../runs';
import { queueTurn, withdrawTurn } from '../turns';

type Known = Promise<Outcome<StoredAlternation, ConsoleFaultCode>>;

/** Two far ends of an office that are equally far; null: there are none such. */
async function peersOf({ store }: ConsoleContext, siteId: string, { peerA, peerB }: AlternationForm) {
  const peers = await store.sites.peersOf(siteId);
  const [a, b] = [peerA, peerB].map((id) => peers.find((peer) => peer.id === id));
  return a === undefined || b === undefined || a.reach !== b.reach ? null : [a, b];
}

/** Begins to measure two things turn and turn about. */
export async function startAlternation(
  context: ConsoleContext,
  byName: string,
  { siteId, form }: { readonly siteId: string; readonly form: AlternationForm },
): Known {
  const { store } = context;
  if ((await store.sites.byId(siteId)) === null) return failed('site-missing');
  const devices = await store.sites.devicesOf(siteId);
  const device = (id: string) => devices.find((each) => each.id === id);
  const [a, b] = [device(form.deviceA), device(form.kind === 'devices' ? form.deviceB : form.deviceA)];
  if (a === undefined || b === undefined) return failed('device-unknown');
  const peers = form.kind === 'peers' ? await peersOf(context, siteId, form) : [null, null];
  const reach = peers?.[0]?.reach ?? form.reach;
  // The other end of a run between machines is no peer that could be gone to again and again.
  if (peers === null || reach === 'between') return failed('peer-missing', { reach: form.reach });
  const names = {
    devices: [a.name, b.name],
    peers: peers.map((peer) => peer?.name ?? ''),
    'by-hand': [form.nameA, form.nameB],
  }[form.kind];
  const made: StoredAlternation = {
    ...{
      id: context.newId(),
      siteId,
      byHand: form.kind === 'by-hand',
      reach,
      profile: form.profile,
      times: form.times,
    },
    sides: [
      { deviceId: a.id, peerId: peers[0]?.id ?? null, name: names[0]! },
      { deviceId: b.id, peerId: peers[1]?.id ?? null, name: names[1]! },
    ],
    ...{ runs: [[], []], readyFor: null, turnId: null, state: 'going', why: null },
    ...{ byName, madeAtMs: context.wallMs(), comparisonId: null },
  };
  await store.alternations.save(made);
  await moveAlternation(context, made);
  return done((await store.alternations.byId(made.id))!);
}

async function change(
  context: ConsoleContext,
  id: string,
  changed: (before: StoredAlternation) => Partial<StoredAlternation> | null,
): Known {
  const before = await context.store.alternations.byId(id);
  const changes = before === null ? null : changed(before);
  if (before === null || changes === null) return failed('alternation-over');
  const after = { ...before, ...changes };
  await context.store.alternations.save(after);
  if (after.state === 'going') await moveAlternation(context, after);
  return done((await context.store.alternations.byId(id))!);
}

/** The side that waits for hands is ready. */
export function sideIsReady(context: ConsoleContext, id: string): Known {
  return change(context, id, (before) => {
    const step = nextStep(before);
    return before.state === 'going' && before.turnId === null && step.kind === 'hands' ? { readyFor: step.side } : null;
  });
}

/** It goes on after a turn that brought no result: that turn is taken once more. */
export function goOnWithAlternation(context: ConsoleContext, id: string): Known {
  return change(context, id, ({ state }) => (state === 'held' ? { state: 'going', why: null } : null));
}

/** No further turn is taken. What was measured stays, and is held side by side where there is something of both. */
export async function stopAlternation(context: ConsoleContext, id: string): Known {
  const before = await context.store.alternations.byId(id);
  if (before?.turnId) await withdrawTurn(context, before.turnId);
  return change(context, id, ({ state }) =>
    state === 'going' || state === 'held' ? { state: 'stopped', turnId: null, why: null } : null,
  );
}

/** Whether the turn that is waited for is over, and what it brought. */
async function broughtBy(
  { store }: ConsoleContext,
  { turnId, runs, sides, byHand, times, readyFor }: StoredAlternation,
) {
  if (turnId === null) return null;
  const turn = await store.turns.byId(turnId);
  const run = turn?.runId ? await store.runs.byId(turn.runId) : null;
  const step = nextStep({ runs, byHand, times, readyFor });
  if (run?.status === 'finished' && step.kind === 'run' && run.deviceId === sides[step.side].deviceId) {
    const more = runs.map((of, side) => (side === step.side ? [...of, run.id] : of)) as unknown as typeof runs;
    return { runs: more, turnId: null };
  }
  const isOpen = turn?.status === 'waiting' || turn?.status === 'asked';
  if (isOpen || run?.status === 'running') return 'waits' as const;
  const why = turn?.status === 'refused' ? 'refused' : turn?.status === 'withdrawn' ? 'withdrawn' : 'unfinished';
  return { state: 'held', why, turnId: null } as const;
}

async function hold(context: ConsoleContext, { siteId, sides, runs, byName }: StoredAlternation) {
  const trays = sides.map(({ name }, side) => ({ name, query: '', runIds: [...runs[side as 0 | 1]] }));
  const made = await makeComparison(context, byName, { siteId, name: '', trays });
  return made.ok ? made.value.id : null;
}

async function takeStep(
  context: ConsoleContext,
  of: StoredAlternation,
  step: AlternationStep,
): Promise<Partial<StoredAlternation>> {
  if (step.kind === 'done') return { state: 'done', comparisonId: await hold(context, of) };
  if (step.kind === 'hands') return {};
  const { deviceId, peerId } = of.sides[step.side];
  const order = { siteId: of.siteId, deviceIds: [deviceId], reaches: [of.reach], times: 1, together: false };
  const queued = await queueTurn(context, of.byName, { ...order, profile: of.profile }, peerId);
  return queued.ok ? { turnId: queued.value } : { state: 'held', why: 'refused-here' };
}

/** One step on, as far as it goes by itself. */
async function moveAlternation(context: ConsoleContext, before: StoredAlternation): Promise<void> {
  const brought = await broughtBy(context, before);
  if (brought === 'waits') return;
  const now: StoredAlternation = { ...before, ...brought };
  const stepped = now.state === 'going' ? await takeStep(context, now, nextStep(now)) : {};
  if (brought === null && Object.keys(stepped).length === 0) return;
  await context.store.alternations.save({ ...now, ...stepped });
  context.changes.tell('queue');
}

/** All that go on by themselves. */
export async function moveAlternations(context: ConsoleContext): Promise<void> {
  for (const each of await context.store.alternations.going()) await moveAlternation(context, each);
}
