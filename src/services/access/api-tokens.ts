import { createHash, randomBytes } from 'node:crypto';
import type { StoredApiToken } from '@/store';
import { done, failed, TOKEN_SCOPES, type Outcome, type TokenForm, type TokenScope } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

/** Begins every token, so that one that leaked is recognised. */
const PREFIX = 'straw_';
const TOKEN_BYTES = 32;
const DAY_MS = 24 * 3600_000;
/** A use is written down at most so often. */
const NOTE_USE_MS = 60_000;

const idOf = (token: string) => createHash('sha256').update(token).digest('base64url');

/** Makes a token for a script. The answer is the only time that it is seen: what is kept is its hash. */
export async function makeApiToken(
  context: ConsoleContext,
  { name, scope, days }: TokenForm,
  madeBy: string,
): Promise<Outcome<string, 'name-taken'>> {
  const { access } = context.store;
  if ((await access.apiTokens()).some((token) => token.name === name))
    return failed('name-taken', { what: 'token', name });
  const token = PREFIX + randomBytes(TOKEN_BYTES).toString('base64url');
  const createdAtMs = context.wallMs();
  await access.addApiToken({
    ...{ id: idOf(token), name, scope, createdAtMs, usedAtMs: null, madeBy },
    endsAtMs: days === 0 ? null : createdAtMs + days * DAY_MS,
  });
  return done(token);
}

export function revokeApiToken(context: ConsoleContext, id: string): Promise<void> {
  return context.store.access.removeApiToken(id);
}

/** Whether what a token may do includes this. */
export function scopeAllows(scope: TokenScope, wanted: TokenScope): boolean {
  return TOKEN_SCOPES.indexOf(scope) >= TOKEN_SCOPES.indexOf(wanted);
}

/** What a token may do, read from the record; one that cannot be read may do least. */
export function scopeOf({ scope }: Pick<StoredApiToken, 'scope'>): TokenScope {
  return TOKEN_SCOPES.find((known) => known === scope) ?? 'read';
}

/** The token that an `Authorization` header carries (RFC 6750); null for none, a forged, a revoked or an ended one. */
export async function apiTokenOf(
  context: ConsoleContext,
  authorization: string | null,
): Promise<StoredApiToken | null> {
  const token = /^Bearer (\S+)$/i.exec(authorization ?? '')?.[1];
  if (token === undefined || !token.startsWith(PREFIX)) return null;
  const { access } = context.store;
  const found = await access.apiToken(idOf(token));
  const nowMs = context.wallMs();
  if (found === null || (found.endsAtMs !== null && found.endsAtMs <= nowMs)) return null;
  if (found.usedAtMs === null || nowMs - found.usedAtMs > NOTE_USE_MS) await access.noteApiTokenUsed(found.id, nowMs);
  return found;
}
