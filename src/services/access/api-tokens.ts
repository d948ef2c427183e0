import { createHash, randomBytes } from 'node:crypto';
import type { StoredApiToken } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console-context';

/** Begins every token, so that one that leaked is recognised. */
const PREFIX = 'straw_';
const TOKEN_BYTES = 32;
/** A use is written down at most so often. */
const NOTE_USE_MS = 60_000;

const idOf = (token: string) => createHash('sha256').update(token).digest('base64url');

/** Makes a token for a script. The answer is the only time that it is seen: what is kept is its hash. */
export async function makeApiToken(context: ConsoleContext, name: string): Promise<Outcome<string, 'name-taken'>> {
  const { access } = context.store;
  if ((await access.apiTokens()).some((token) => token.name === name))
    return failed('name-taken', { what: 'token', name });
  const token = PREFIX + randomBytes(TOKEN_BYTES).toString('base64url');
  await access.saveApiToken({ id: idOf(token), name, createdAtMs: context.wallMs(), usedAtMs: null });
  return done(token);
}

export function revokeApiToken(context: ConsoleContext, id: string): Promise<void> {
  return context.store.access.removeApiToken(id);
}

/** The token that an `Authorization` header carries (RFC 6750); null for none, a forged or a revoked one. */
export async function apiTokenOf(
  context: ConsoleContext,
  authorization: string | null,
): Promise<StoredApiToken | null> {
  const token = /^Bearer (\S+)$/i.exec(authorization ?? '')?.[1];
  if (token === undefined || !token.startsWith(PREFIX)) return null;
  const { access } = context.store;
  const found = await access.apiToken(idOf(token));
  if (found === null) return null;
  const nowMs = context.wallMs();
  if (found.usedAtMs === null || nowMs - found.usedAtMs > NOTE_USE_MS)
    await access.saveApiToken({ ...found, usedAtMs: nowMs });
  return found;
}
