import { queueTurns, saveRunNotes, shareRun, stopSharing, withdrawTurn } from '@/services';
import { done, type QueueOrder } from '@/wire';
import type { Command } from './command';
import { runLook, siteLook } from './facts';

export const RUN_COMMANDS = {
  saveRunNotes: {
    ...{ scope: 'everything', changes: ['runs'], audited: 'run-noted' },
    look: ({ context, input }) => runLook(context, input.runId),
    run: ({ context, input }) => saveRunNotes(context, input.runId, input.notes),
  } satisfies Command<{ runId: string; notes: string }, null>,

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
    run: async ({ context, input }) => done(await withdrawTurn(context, input.turnId)),
  } satisfies Command<{ turnId: string }, void>,
};
