'use server';

import { revalidatePath } from 'next/cache';
import { act, actOnForm, COMMANDS, perform } from '@/app/commands';
import { saved } from '@/app/form-action';
import type { FormState } from '@/ui/form/form-state';
import type { AddedRecipient } from '@/ui/told/recipient-form';
import type { MailServer } from '@/services';

const HERE = '/told';
/** Where mail is handed in (RFC 8314, RFC 6409). */
const PORTS: Readonly<Record<MailServer['security'], number>> = { tls: 465, starttls: 587, none: 25 };

export async function saveRulesAction(siteId: string, _: FormState, form: FormData): Promise<FormState> {
  return actOnForm('alarm-rules', form, COMMANDS.saveAlarmRules, (rules) => ({ siteId, rules }));
}

/** Answers with the secret of a webhook, which is shown this once. */
export async function addRecipientAction(siteId: string, _: AddedRecipient, form: FormData): Promise<AddedRecipient> {
  let secret: string | null = null;
  const state = await saved('recipient', form, async ({ of, kind, target, quiet, digest, allowPrivate }) => {
    const outcome = await perform(COMMANDS.addRecipient, {
      ...{ kind, target, quiet, digest, allowPrivate },
      siteId: of === 'all' ? null : siteId,
    });
    if (outcome.ok) ({ secret } = outcome.value);
    return outcome;
  });
  if (state.status === 'saved') revalidatePath('/', 'layout');
  return { state, secret };
}

export async function pauseRecipientAction(id: string, paused: boolean): Promise<string | null> {
  return act(COMMANDS.pauseRecipient, { id, paused }, HERE);
}

export async function removeRecipientAction(id: string): Promise<string | null> {
  return act(COMMANDS.removeRecipient, { id }, HERE);
}

export async function tryRecipientAction(id: string): Promise<string | null> {
  return act(COMMANDS.tryRecipient, { id }, HERE);
}

export async function saveMailServerAction(_: FormState, form: FormData): Promise<FormState> {
  return actOnForm('mail-server', form, COMMANDS.saveMailServer, ({ port, password, ...server }) => ({
    ...server,
    port: port ?? PORTS[server.security],
    password: password === '' ? null : password,
  }));
}
