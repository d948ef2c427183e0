import {
  acceptPeerKey,
  correctPlan,
  mergeDevices,
  openDevice,
  pinPeer,
  putBackOffice,
  putLineInUse,
  removeDemoData,
  removeDevice,
  removeLine,
  removeOffice,
  removePeer,
  removePlan,
  renewJoinCode,
  saveDevice,
  saveLine,
  saveOffice,
  savePeer,
  saveWebFarEnd,
  undoRemoval,
  letterheadOf,
  saveLetterhead,
} from '@/services';
import { done, type DeviceForm, type LineForm, type PeerForm, type PlanForm, type WebFarEndForm } from '@/wire';
import type { Command } from './command';
import { deviceLook, lineLook, peerLook, planLook, siteLook } from './facts';

interface Named {
  readonly id: string;
}
interface OfSite {
  readonly siteId: string;
}
interface OfLine extends OfSite {
  readonly lineId: string;
}
interface OfPlan extends OfLine {
  readonly planId: string;
}

const everything = { scope: 'everything', changes: ['office'] } as const;

export const OFFICE_COMMANDS = {
  saveLetterhead: {
    ...{ scope: 'everything', changes: [], audited: 'letterhead-saved' },
    look: async ({ context }) => {
      const { name, lines, logo } = await letterheadOf(context);
      return { subject: name, facts: { name, address: lines.join(', '), picture: logo !== null } };
    },
    run: ({ context, input }) => saveLetterhead(context, input),
  } satisfies Command<{ name: string; address: string; logo: Uint8Array | 'keep' | null }, null>,

  saveOffice: {
    ...{ ...everything, audited: 'office-saved' },
    look: ({ context, input }, saved) => siteLook(context, saved?.id ?? input.siteId),
    run: ({ context, input }) =>
      saveOffice(context, input.siteId, input.name, input.timeZone === '' ? null : input.timeZone),
  } satisfies Command<{ siteId: string | null; name: string; timeZone?: string | undefined }, Named>,

  removeOffice: {
    ...{ ...everything, changes: ['office', 'runs'], audited: 'office-removed' },
    look: ({ context, input }) => siteLook(context, input.siteId),
    run: async ({ context, input }) => done(await removeOffice(context, input.siteId)),
  } satisfies Command<OfSite, void>,

  putBackOffice: {
    ...{ ...everything, changes: ['office', 'runs'], audited: 'office-put-back' },
    look: ({ context, input }) => siteLook(context, input.siteId),
    run: ({ context, input }) => putBackOffice(context, input.siteId),
  } satisfies Command<OfSite, Named>,

  removeDemoData: {
    ...{ ...everything, changes: ['office', 'runs'], audited: 'demo-removed' },
    run: async ({ context }) => done(await removeDemoData(context)),
  } satisfies Command<null, number>,

  renewJoinCode: {
    ...{ ...everything, audited: 'code-renewed' },
    look: ({ context, input }) => siteLook(context, input.siteId),
    run: ({ context, input }) => renewJoinCode(context, input.siteId),
  } satisfies Command<OfSite, { joinCode: string; joinCodeUntilMs: number }>,

  saveLine: {
    ...{ ...everything, audited: 'line-saved' },
    look: ({ context, input }, saved) => lineLook(context, saved?.id ?? input.lineId),
    run: ({ context, input: { siteId, lineId, form } }) => saveLine(context, siteId, lineId, form),
  } satisfies Command<{ siteId: string; lineId: string | null; form: LineForm }, Named>,

  putLineInUse: {
    ...{ ...everything, audited: 'line-used' },
    look: ({ context, input }) => lineLook(context, input.lineId),
    run: ({ context, input }) => putLineInUse(context, input.siteId, input.lineId),
  } satisfies Command<OfLine, null>,

  removeLine: {
    ...{ ...everything, audited: 'line-removed' },
    look: ({ context, input }) => lineLook(context, input.lineId),
    run: ({ context, input }) => removeLine(context, input.siteId, input.lineId),
  } satisfies Command<OfLine, null>,

  correctPlan: {
    ...{ ...everything, changes: ['office', 'runs'], audited: 'plan-corrected' },
    look: ({ context, input }) => planLook(context, input.lineId, input.planId),
    run: ({ context, input: { siteId, lineId, planId, form } }) => correctPlan(context, siteId, lineId, planId, form),
  } satisfies Command<OfPlan & { form: PlanForm }, Named>,

  removePlan: {
    ...{ ...everything, changes: ['office', 'runs'], audited: 'plan-removed' },
    look: ({ context, input }) => planLook(context, input.lineId, input.planId),
    run: ({ context, input: { siteId, lineId, planId } }) => removePlan(context, siteId, lineId, planId),
  } satisfies Command<OfPlan, null>,

  saveDevice: {
    ...{ ...everything, audited: 'device-saved' },
    look: ({ context, input }, saved) => deviceLook(context, saved?.id ?? input.deviceId),
    run: ({ context, input: { siteId, deviceId, form } }) => saveDevice(context, siteId, deviceId, form),
  } satisfies Command<{ siteId: string; deviceId: string | null; form: DeviceForm }, Named>,

  removeDevice: {
    ...{ ...everything, changes: ['office', 'runs'], audited: 'device-removed' },
    look: ({ context, input }) => deviceLook(context, input.deviceId),
    run: async ({ context, input }) => done(await removeDevice(context, input.deviceId)),
  } satisfies Command<{ deviceId: string }, void>,

  mergeDevices: {
    ...{ ...everything, changes: ['office', 'runs'], audited: 'device-merged' },
    look: ({ context, input }, into) => deviceLook(context, into === null ? input.fromId : input.intoId),
    run: ({ context, input }) => mergeDevices(context, input.fromId, input.intoId),
  } satisfies Command<{ fromId: string; intoId: string }, Named>,

  openDevice: {
    ...{ ...everything, audited: 'device-opened' },
    look: ({ context, input }) => deviceLook(context, input.deviceId),
    run: ({ context, input }) => openDevice(context, input.deviceId),
  } satisfies Command<{ deviceId: string }, null>,

  savePeer: {
    ...{ ...everything, audited: 'peer-saved' },
    look: ({ context, input }, saved) => peerLook(context, saved?.id ?? input.peerId),
    run: ({ context, input: { siteId, peerId, form } }) => savePeer(context, siteId, peerId, form),
  } satisfies Command<{ siteId: string; peerId: string | null; form: PeerForm }, Named>,

  saveWebFarEnd: {
    ...{ ...everything, audited: 'peer-saved' },
    look: ({ context, input }, saved) => peerLook(context, saved?.id ?? input.peerId),
    run: ({ context, input: { siteId, peerId, form } }) => saveWebFarEnd(context, siteId, peerId, form),
  } satisfies Command<{ siteId: string; peerId: string | null; form: WebFarEndForm }, Named>,

  removePeer: {
    ...{ ...everything, audited: 'peer-removed' },
    look: ({ context, input }) => peerLook(context, input.peerId),
    run: async ({ context, input }) => done(await removePeer(context, input.peerId)),
  } satisfies Command<{ peerId: string }, void>,

  pinPeer: {
    ...{ ...everything, audited: 'peer-pinned' },
    look: ({ context, input }) => peerLook(context, input.peerId),
    run: async ({ context, input }) => done(await pinPeer(context, input.peerId)),
  } satisfies Command<{ peerId: string }, void>,

  acceptPeerKey: {
    ...{ ...everything, audited: 'peer-key-accepted' },
    look: ({ context, input }) => peerLook(context, input.peerId),
    run: async ({ context, input }) => done(await acceptPeerKey(context, input.peerId)),
  } satisfies Command<{ peerId: string }, void>,

  undoRemoval: {
    ...{ ...everything, changes: ['office', 'runs'], audited: 'removal-undone' },
    look: async ({ context, input }) => {
      const removal = await context.store.removals.byId(input.removalId);
      return removal === null ? null : { siteId: removal.siteId, subject: removal.name, facts: { kind: removal.kind } };
    },
    run: ({ context, input }) => undoRemoval(context, input.removalId),
  } satisfies Command<{ removalId: string }, null>,
};
