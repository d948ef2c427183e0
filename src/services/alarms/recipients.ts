import { randomBytes } from 'node:crypto';
import type { StoredRecipient } from '@/store';
import { done, failed, type Outcome, type RecipientForm } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { seal, unseal } from '../console/sealed';

const SECRET_BYTES = 24;

type Known<Value> = Promise<Outcome<Value, 'recipient-unknown'>>;

/** Somebody is told from now on. Answers with the secret by which a webhook's messages are signed; null: a mail. */
export async function addRecipient(
  context: ConsoleContext,
  byName: string,
  { siteId, ...form }: RecipientForm & { readonly siteId: string | null },
): Promise<Outcome<{ readonly id: string; readonly secret: string | null }, 'site-missing'>> {
  const { store, wallMs, newId } = context;
  if (siteId !== null && (await store.sites.byId(siteId)) === null) return failed('site-missing');
  const secret = form.kind === 'webhook' ? randomBytes(SECRET_BYTES).toString('base64url') : null;
  const id = newId();
  await store.alarms.saveRecipient({
    ...{ id, siteId, kind: form.kind, target: form.target, quiet: form.quiet, digest: form.digest },
    ...{ allowPrivate: form.allowPrivate, paused: false, byName, madeAtMs: wallMs(), digestAtMs: wallMs() },
    secret: secret === null ? null : seal(context.signingKey, secret),
  });
  return done({ id, secret });
}

async function change(
  { store }: ConsoleContext,
  id: string,
  changes: Partial<StoredRecipient>,
): Known<StoredRecipient> {
  const before = await store.alarms.recipient(id);
  if (before === null) return failed('recipient-unknown');
  const after = { ...before, ...changes };
  await store.alarms.saveRecipient(after);
  return done(after);
}

export const pauseRecipient = (context: ConsoleContext, id: string, paused: boolean): Known<StoredRecipient> =>
  change(context, id, { paused });

export async function removeRecipient(context: ConsoleContext, id: string): Known<null> {
  if ((await context.store.alarms.recipient(id)) === null) return failed('recipient-unknown');
  await context.store.alarms.removeRecipient(id);
  return done(null);
}

/** A message that says nothing but that it arrives. It goes the way of all others. */
export async function tryRecipient(context: ConsoleContext, id: string): Known<null> {
  const { store, wallMs, newId } = context;
  if ((await store.alarms.recipient(id)) === null) return failed('recipient-unknown');
  const nowMs = wallMs();
  await store.alarms.tell(null, [
    {
      ...{ id: newId(), recipientId: id, eventId: null, phase: 'test', madeAtMs: nowMs, nextTryAtMs: nowMs, tries: 0 },
      subject: 'Bent Straw: a try',
      text: 'This is how you will be told. Nothing has happened.',
      ...{ state: 'waits', trouble: null, endedAtMs: null },
    },
  ]);
  return done(null);
}

/** The secret of a webhook as it was made; null: it cannot be read with this console's key. */
export function secretOf(
  { signingKey }: Pick<ConsoleContext, 'signingKey'>,
  { secret }: StoredRecipient,
): string | null {
  return secret === null ? null : unseal(signingKey, secret);
}
