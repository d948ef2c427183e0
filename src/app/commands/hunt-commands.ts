import { findingWords, type CheckCode } from '@/core';
import {
  endHunt,
  letBe,
  makeLabels,
  noteInHunt,
  noteQueueSet,
  noteSwap,
  openAgain,
  openHunt,
  resumeHunt,
  revokeLabels,
  ruleOut,
  seeComplaint,
  undoSwap,
  type ConsoleContext,
  type HuntOrigin,
  type SwapOrder,
} from '@/services';
import type { Command, Look } from './command';
import { siteLook } from './facts';

async function findingLook({ store }: ConsoleContext, findingId: string): Promise<Look | null> {
  const finding = await store.findings.finding(findingId);
  if (finding === null) return null;
  const { siteId, state, reason } = finding;
  return { siteId, subject: findingWords(finding.finding).sentence, facts: { state, reason } };
}

async function huntLook({ store }: ConsoleContext, huntId: string): Promise<Look | null> {
  const hunt = await store.findings.hunt(huntId);
  return hunt === null ? null : { siteId: hunt.siteId, subject: hunt.title, facts: { state: hunt.state } };
}

async function swapLook({ store }: ConsoleContext, swapId: string): Promise<Look | null> {
  const swap = await store.findings.swap(swapId);
  if (swap === null) return null;
  const { siteId, segmentId, what, note, atMs, undoneAtMs } = swap;
  return { siteId, subject: `${what} ${segmentId}`, facts: { note, atMs, undoneAtMs } };
}

export const HUNT_COMMANDS = {
  letFindingBe: {
    ...{ scope: 'everything', changes: ['findings'], audited: 'finding-let-be' },
    look: ({ context, input }) => findingLook(context, input.findingId),
    run: ({ context, actor, input }) => letBe(context, actor.name, input),
  } satisfies Command<{ findingId: string; reason: string }, unknown>,

  openFindingAgain: {
    ...{ scope: 'everything', changes: ['findings'], audited: 'finding-opened' },
    look: ({ context, input }) => findingLook(context, input.findingId),
    run: ({ context, actor, input }) => openAgain(context, actor.name, input.findingId),
  } satisfies Command<{ findingId: string }, unknown>,

  openHunt: {
    ...{ scope: 'measure', changes: ['findings'], audited: 'hunt-opened' },
    look: ({ context }, hunt) => (hunt === null ? Promise.resolve(null) : huntLook(context, hunt.id)),
    run: ({ context, actor, input }) => openHunt(context, actor.name, input),
  } satisfies Command<HuntOrigin, { readonly id: string }>,

  noteInHunt: {
    ...{ scope: 'measure', changes: ['findings'], audited: 'hunt-noted' },
    look: ({ context, input }) => huntLook(context, input.huntId),
    run: ({ context, actor, input }) => noteInHunt(context, actor.name, input.huntId, input.text),
  } satisfies Command<{ huntId: string; text: string }, null>,

  ruleOut: {
    ...{ scope: 'measure', changes: ['findings'], audited: 'hunt-checked' },
    look: async ({ context, input }) => {
      const look = await huntLook(context, input.huntId);
      return look === null ? null : { ...look, facts: { ...look.facts, check: input.check, out: input.out } };
    },
    run: ({ context, actor, input }) => ruleOut(context, actor.name, input),
  } satisfies Command<{ huntId: string; check: CheckCode; out: boolean }, null>,

  endHunt: {
    ...{ scope: 'measure', changes: ['findings'], audited: 'hunt-ended' },
    look: ({ context, input }) => huntLook(context, input.huntId),
    run: ({ context, actor, input }) => endHunt(context, actor.name, input),
  } satisfies Command<{ huntId: string; state: 'found' | 'mended' | 'given-up'; note: string }, unknown>,

  resumeHunt: {
    ...{ scope: 'measure', changes: ['findings'], audited: 'hunt-resumed' },
    look: ({ context, input }) => huntLook(context, input.huntId),
    run: ({ context, input }) => resumeHunt(context, input.huntId),
  } satisfies Command<{ huntId: string }, unknown>,

  noteSwap: {
    ...{ scope: 'measure', changes: ['findings'], audited: 'swap-noted' },
    look: ({ context }, swap) => (swap === null ? Promise.resolve(null) : swapLook(context, swap.id)),
    run: ({ context, actor, input }) => noteSwap(context, actor.name, input),
  } satisfies Command<SwapOrder, { readonly id: string }>,

  undoSwap: {
    ...{ scope: 'measure', changes: ['findings'], audited: 'swap-undone' },
    look: ({ context, input }) => swapLook(context, input.swapId),
    run: ({ context, input }) => undoSwap(context, input.swapId),
  } satisfies Command<{ swapId: string }, unknown>,

  makeLabels: {
    ...{ scope: 'everything', changes: ['office'], audited: 'labels-made' },
    look: async ({ context, input }, made) => {
      const site = await siteLook(context, input.siteId);
      return site === null || made === null ? null : { ...site, facts: { labels: made } };
    },
    run: ({ context, input }) => makeLabels(context, input.siteId),
  } satisfies Command<{ siteId: string }, number>,

  revokeLabels: {
    ...{ scope: 'everything', changes: ['office'], audited: 'labels-revoked' },
    look: async ({ context, input }, revoked) => {
      const site = await siteLook(context, input.siteId);
      return site === null || revoked === null ? null : { ...site, facts: { labels: revoked } };
    },
    run: ({ context, input }) => revokeLabels(context, input.siteId),
  } satisfies Command<{ siteId: string }, number>,

  seeComplaint: {
    ...{ scope: 'everything', changes: ['findings'], audited: 'complaint-seen' },
    look: async ({ context, input }) => {
      const complaint = await context.store.findings.complaint(input.complaintId);
      if (complaint === null) return null;
      const { siteId, deviceName, what, seenAtMs } = complaint;
      return { siteId, subject: deviceName, facts: { what, seenAtMs } };
    },
    run: ({ context, input }) => seeComplaint(context, input.complaintId),
  } satisfies Command<{ complaintId: string }, unknown>,

  setQueue: {
    ...{ scope: 'measure', changes: ['findings'], audited: 'queue-set' },
    look: ({ context, input }) => huntLook(context, input.huntId),
    run: ({ context, actor, input }) => noteQueueSet(context, actor.name, input.huntId, input.bps),
  } satisfies Command<{ huntId: string; bps: number }, unknown>,
};
