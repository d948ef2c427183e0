import { lookAskedWords, type LookAsked, type SnmpLogin } from '@/core';
import { askLook, stopLook, type ConsoleContext, type StoredLook } from '@/services';
import type { Command, Look } from './command';

function lookLook(look: StoredLook | null): Look | null {
  if (look === null) return null;
  return { siteId: look.siteId, subject: look.deviceName, facts: { asked: lookAskedWords(look.asked) } };
}

const byId = ({ store }: ConsoleContext, lookId: string) => store.looks.byId(lookId).then(lookLook);

export const LOOK_COMMANDS = {
  askLook: {
    ...{ scope: 'measure', changes: ['looks', 'queue'], audited: 'look-asked' },
    look: (_, made) => Promise.resolve(lookLook(made)),
    run: ({ context, actor, input }) => askLook(context, actor.name, input.deviceId, input.asked, input.login),
  } satisfies Command<
    { readonly deviceId: string; readonly asked: LookAsked; readonly login?: SnmpLogin | undefined },
    StoredLook
  >,

  stopLook: {
    ...{ scope: 'measure', changes: ['looks', 'queue'], audited: 'look-stopped' },
    look: ({ context, input }) => byId(context, input.lookId),
    run: ({ context, input }) => stopLook(context, input.lookId),
  } satisfies Command<{ readonly lookId: string }, null>,
};
