import {
  leaveOutRuns,
  noteRuns,
  queueBetween,
  queueTurns,
  removeLedgerView,
  removeRuns,
  saveLedgerView,
  saveRunNotes,
  shareRun,
  stopSharing,
  tagRuns,
  stopTurn,
  type ChosenRuns,
} from '@/services';
import { done, type BetweenOrder, type QueueOrder } from '@/wire';
import type { Command, Look } from './command';
import { deviceLook, runLook, siteLook } from './facts';

/** Of many runs their number is written down, and the first of them. */
function manyLook(site: Look | null, { runIds }: ChosenRuns, facts: Look['facts']): Look | null {
  return site === null ? null : { ...site, facts: { runs: runIds.length, first: runIds[0] ?? null, ...facts } };
}

export const RUN_COMMANDS = {
  saveRunNotes: {
    ...{ scope: 'everything', changes: ['runs'], audited: 'run-noted' },
    look: ({ context, input }) => runLook(context, input.runId),
    run: ({ context, input }) => saveRunNotes(context, input.runId, input.notes),
  } satisfies Command<{ runId: string; notes: string }, null>,

  tagRuns: {
    ...{ scope: 'everything', changes: ['runs'], audited: 'runs-tagged' },
    look: async ({ context, input }) =>
      manyLook(await siteLook(context, input.siteId), input, { tag: input.tag, on: input.on }),
    run: ({ context, input }) => tagRuns(context, input),
  } satisfies Command<ChosenRuns & { tag: string; on: boolean }, null>,

  noteRuns: {
    ...{ scope: 'everything', changes: ['runs'], audited: 'runs-noted' },
    look: async ({ context, input }) => manyLook(await siteLook(context, input.siteId), input, { note: input.note }),
    run: ({ context, input }) => noteRuns(context, input),
  } satisfies Command<ChosenRuns & { note: string }, null>,

  leaveOutRuns: {
    ...{ scope: 'everything', changes: ['runs'], audited: 'runs-left-out' },
    look: async ({ context, input }) =>
      manyLook(await siteLook(context, input.siteId), input, { leftOutBecause: input.reason }),
    run: ({ context, input }) => leaveOutRuns(context, input),
  } satisfies Command<ChosenRuns & { reason: string | null }, number>,

  removeRuns: {
    ...{ scope: 'everything', changes: ['runs'], audited: 'runs-removed' },
    look: async ({ context, input }, removed) =>
      manyLook(await siteLook(context, input.siteId), input, { removed: removed?.count ?? 0 }),
    run: ({ context, input }) => removeRuns(context, input),
  } satisfies Command<ChosenRuns, { removalId: string; count: number }>,

  saveLedgerView: {
    ...{ scope: 'everything', changes: [], audited: 'view-saved' },
    look: async ({ context, input }) => {
      const site = await siteLook(context, input.siteId);
      return site === null ? null : { ...site, facts: { view: input.name, query: input.query } };
    },
    run: ({ context, actor, input }) => saveLedgerView(context, actor.name, input),
  } satisfies Command<{ siteId: string; name: string; query: string }, null>,

  removeLedgerView: {
    ...{ scope: 'everything', changes: [], audited: 'view-removed' },
    look: async ({ context, input }) => {
      const site = await siteLook(context, input.siteId);
      return site === null ? null : { ...site, facts: { view: input.name } };
    },
    run: ({ context, input }) => removeLedgerView(context, input),
  } satisfies Command<{ siteId: string; name: string }, null>,

  shareRun: {
    ...{ scope: 'everything', changes: [], audited: 'run-shared' },
    look: ({ context, input }) => runLook(context, input.runId),
    run: ({ context, input }) => shareRun(context, input.runId),
  } satisfies Command<{ runId: string }, string>,

  stopSharing: {
    ...{ scope: 'everything', changes: [], audited: 'run-unshared' },
    look: ({ context, input }) => runLook(context, input.runId),
    run: ({ context, input }) => stopSharing(context, input.runId),
  } satisfies Command<{ runId: string }, null>,

  queueBetween: {
    ...{ scope: 'measure', changes: ['queue'], audited: 'round-queued' },
    look: async ({ context, input }, queued) => {
      if (queued === null) return null;
      const far = await context.store.sites.device(input.farDeviceId);
      const look = await deviceLook(context, input.deviceId);
      return look === null
        ? null
        : { ...look, facts: { reaches: 'between', to: far?.name ?? null, profile: input.profile, runs: 1 } };
    },
    run: ({ context, actor, input }) => queueBetween(context, actor.name, input),
  } satisfies Command<BetweenOrder, string>,

  queueTurns: {
    ...{ scope: 'measure', changes: ['queue'], audited: 'round-queued' },
    look: async ({ context, input }, queued) => {
      const site = await siteLook(context, input.siteId);
      return site === null || queued === null
        ? null
        : { ...site, facts: { reaches: input.reaches.join(', '), profile: input.profile, runs: queued } };
    },
    run: ({ context, actor, input }) => queueTurns(context, actor.name, input),
  } satisfies Command<QueueOrder, number>,

  withdrawTurn: {
    ...{ scope: 'measure', changes: ['queue'], audited: 'turn-withdrawn' },
    look: async ({ context, input }) => {
      const turn = await context.store.turns.byId(input.turnId);
      return turn === null ? null : { siteId: turn.siteId, subject: turn.deviceName, facts: { reach: turn.reach } };
    },
    run: async ({ context, input }) => done(await stopTurn(context, input.turnId)),
  } satisfies Command<{ turnId: string }, void>,
};
