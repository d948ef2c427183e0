import { createHash, randomBytes } from 'node:crypto';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console-context';
import { proofOf, provesIt } from '../proofs';
import { hashPassphrase, provesPassphrase } from './passphrase';

export const SIGN_IN_COOKIE = 'bent-straw-sign-in';
/** A sign-in ends after so long without use, and in any case after so long. */
const IDLE_MS = 12 * 3600_000;
const LONGEST_MS = 14 * 24 * 3600_000;
export const SIGN_IN_COOKIE_SECONDS = LONGEST_MS / 1000;
/** A use is written down at most so often: reading the board is not a reason to write. */
const NOTE_USE_MS = 5 * 60_000;
const TOKEN_BYTES = 32;

/** Whoever signed in with the passphrase, by the name given then. */
export interface Technician {
  readonly name: string;
}

export interface Credentials {
  readonly name: string;
  readonly passphrase: string;
}

const idOf = (token: string) => createHash('sha256').update(token).digest('base64url');

async function openSignIn(context: ConsoleContext, name: string): Promise<string> {
  const token = randomBytes(TOKEN_BYTES).toString('base64url');
  const nowMs = context.wallMs();
  const { access } = context.store;
  await access.removeSignInsBefore(nowMs - LONGEST_MS, nowMs - IDLE_MS);
  await access.saveSignIn({ id: idOf(token), name, createdAtMs: nowMs, seenAtMs: nowMs });
  return token;
}

export async function hasPassphrase(context: ConsoleContext): Promise<boolean> {
  return (await context.store.access.passphraseHash()) !== null;
}

/** What opens the page on which the first passphrase is set; it opens nothing once there is one. */
export function welcomeToken({ signingKey }: Pick<ConsoleContext, 'signingKey'>): string {
  return proofOf(signingKey, 'welcome', 'first passphrase');
}

export function isWelcome({ signingKey }: ConsoleContext, token: string): boolean {
  return provesIt(signingKey, 'welcome', 'first passphrase', token);
}

/** Sets the first passphrase and signs in whoever set it. Answers with what the cookie holds. */
export async function setFirstPassphrase(
  context: ConsoleContext,
  token: string,
  { name, passphrase }: Credentials,
): Promise<Outcome<string, 'welcome-over'>> {
  if (!isWelcome(context, token)) return failed('welcome-over');
  const first = await context.store.access.setFirstPassphrase(await hashPassphrase(passphrase), context.wallMs());
  return first ? done(await openSignIn(context, name)) : failed('welcome-over');
}

/** Signs in; wrong tries are counted by address. Answers with what the cookie holds. */
export async function signIn(
  context: ConsoleContext,
  { name, passphrase }: Credentials,
  address: string | null,
): Promise<Outcome<string, 'passphrase-wrong' | 'passphrase-missing' | 'too-many-tries'>> {
  const hash = await context.store.access.passphraseHash();
  if (hash === null) return failed('passphrase-missing');
  const seconds = context.tries.waitSeconds(address, context.wallMs());
  if (seconds > 0) return failed('too-many-tries', { seconds });
  if (await provesPassphrase(passphrase, hash)) return done(await openSignIn(context, name));
  context.tries.failed(address, context.wallMs());
  return failed('passphrase-wrong');
}

export async function signOut(context: ConsoleContext, cookie: string | null): Promise<void> {
  if (cookie !== null) await context.store.access.removeSignIn(idOf(cookie));
}

/** Who a sign-in cookie stands for; null for none, a forged one, or one that has ended. */
export async function technicianOf(context: ConsoleContext, cookie: string | null): Promise<Technician | null> {
  if (cookie === null) return null;
  const { access } = context.store;
  const found = await access.signIn(idOf(cookie));
  const nowMs = context.wallMs();
  if (found === null || nowMs - found.seenAtMs > IDLE_MS || nowMs - found.createdAtMs > LONGEST_MS) return null;
  if (nowMs - found.seenAtMs > NOTE_USE_MS) await access.saveSignIn({ ...found, seenAtMs: nowMs });
  return { name: found.name };
}
