import type { AlarmRules } from '@/core';
import {
  addRecipient,
  alarmRulesOf,
  mailServerOf,
  pauseRecipient,
  removeRecipient,
  saveAlarmRules,
  saveMailServer,
  tryRecipient,
  type ConsoleContext,
  type MailServer,
} from '@/services';
import { done, type RecipientForm } from '@/wire';
import type { Command, Look } from './command';
import { siteLook } from './facts';

async function recipientLook({ store }: ConsoleContext, id: string): Promise<Look | null> {
  const recipient = await store.alarms.recipient(id);
  if (recipient === null) return null;
  const { siteId, target, kind, paused, digest, allowPrivate } = recipient;
  return {
    siteId,
    subject: target,
    facts: { kind, paused, digest, allowPrivate, of: siteId === null ? 'all' : 'office' },
  };
}

export const ALARM_COMMANDS = {
  saveAlarmRules: {
    ...{ scope: 'everything', changes: ['findings'], audited: 'rules-saved' },
    look: async ({ context, input }) => {
      const site = await siteLook(context, input.siteId);
      return site === null ? null : { ...site, facts: { ...(await alarmRulesOf(context, input.siteId)) } };
    },
    run: ({ context, input }) => saveAlarmRules(context, input.siteId, input.rules),
  } satisfies Command<{ readonly siteId: string; readonly rules: AlarmRules }, null>,

  addRecipient: {
    ...{ scope: 'everything', changes: ['findings'], audited: 'recipient-added' },
    look: ({ context }, made) => (made === null ? Promise.resolve(null) : recipientLook(context, made.id)),
    run: ({ context, actor, input }) => addRecipient(context, actor.name, input),
  } satisfies Command<RecipientForm & { readonly siteId: string | null }, { id: string; secret: string | null }>,

  pauseRecipient: {
    ...{ scope: 'everything', changes: ['findings'], audited: 'recipient-paused' },
    look: ({ context, input }) => recipientLook(context, input.id),
    run: ({ context, input }) => pauseRecipient(context, input.id, input.paused),
  } satisfies Command<{ readonly id: string; readonly paused: boolean }, unknown>,

  removeRecipient: {
    ...{ scope: 'everything', changes: ['findings'], audited: 'recipient-removed' },
    look: ({ context, input }) => recipientLook(context, input.id),
    run: ({ context, input }) => removeRecipient(context, input.id),
  } satisfies Command<{ readonly id: string }, null>,

  tryRecipient: {
    ...{ scope: 'everything', changes: ['findings'], audited: 'recipient-tried' },
    look: ({ context, input }) => recipientLook(context, input.id),
    run: ({ context, input }) => tryRecipient(context, input.id),
  } satisfies Command<{ readonly id: string }, null>,

  saveMailServer: {
    ...{ scope: 'everything', changes: ['findings'], audited: 'mail-server-saved' },
    look: async ({ context }) => {
      const server = await mailServerOf(context);
      if (server === null) return { subject: 'none', facts: {} };
      const { host, port, security, user, from } = server;
      return { subject: host, facts: { host, port, security, user, from } };
    },
    run: async ({ context, input }) => {
      await saveMailServer(context, input);
      return done(null);
    },
  } satisfies Command<Omit<MailServer, 'password'> & { readonly password: string | null }, null>,
};
