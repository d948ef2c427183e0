import { done, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { seal, unseal } from '../console/sealed';
import type { MailServer } from '../console/senders';

const SETTING = 'mail-server';
type StoredMailServer = Omit<MailServer, 'password'> & { readonly sealed: string };

/** The server by which mail leaves; null: none is named. */
export async function mailServerOf({ store, signingKey }: ConsoleContext): Promise<MailServer | null> {
  const stored = (await store.keeping.setting(SETTING)) as StoredMailServer | null | undefined;
  if (stored === null || stored === undefined) return null;
  const { sealed, ...server } = stored;
  return { ...server, password: sealed === '' ? '' : (unseal(signingKey, sealed) ?? '') };
}

/** Names the server; `password` null: as it is. */
export async function saveMailServer(
  context: ConsoleContext,
  { password, ...server }: Omit<MailServer, 'password'> & { readonly password: string | null },
): Promise<Outcome<null, never>> {
  const before = await mailServerOf(context);
  const kept = password ?? before?.password ?? '';
  const sealed = kept === '' ? '' : seal(context.signingKey, kept);
  await context.store.keeping.setSetting(SETTING, server.host === '' ? null : { ...server, sealed });
  return done(null);
}
