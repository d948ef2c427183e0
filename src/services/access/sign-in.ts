import { createHash, randomBytes } from 'node:crypto';
import type { StoredSignIn, StoredTechnician } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import { noteAudit } from '../audit/note-audit';
import type { ConsoleContext } from '../console/console-context';
import { nameKeyOf } from './name-key';
import { hashPassphrase, provesPassphrase } from './passphrase';

export const SIGN_IN_COOKIE = 'bent-straw-sign-in';
/** A sign-in ends after so long without use, and in any case after so long. */
const IDLE_MS = 12 * 3600_000;
const LONGEST_MS = 14 * 24 * 3600_000;
export const SIGN_IN_COOKIE_SECONDS = LONGEST_MS / 1000;
/** A use is written down at most so often: reading the board is not a reason to write. */
const NOTE_USE_MS = 5 * 60_000;
const TOKEN_BYTES = 32;
const MOST_BROWSER_LETTERS = 400;

export interface Credentials {
  readonly name: string;
  readonly passphrase: string;
}

/** Where a sign-in comes from: the address that the door saw, and what the browser says it is. */
export interface SignInPlace {
  readonly address: string | null;
  readonly browser: string | null;
}

/** Whoever signed in, and by which sign-in. */
export interface SignedIn {
  readonly technician: StoredTechnician;
  readonly signInId: string;
}

const idOf = (token: string) => createHash('sha256').update(token).digest('base64url');

const isOver = ({ seenAtMs, createdAtMs }: StoredSignIn, nowMs: number) =>
  nowMs - seenAtMs > IDLE_MS || nowMs - createdAtMs > LONGEST_MS;

/** Answers with what the cookie holds. */
export async function openSignIn(
  context: ConsoleContext,
  technician: StoredTechnician,
  { address, browser }: SignInPlace,
): Promise<string> {
  const token = randomBytes(TOKEN_BYTES).toString('base64url');
  const nowMs = context.wallMs();
  await context.store.access.addSignIn({
    ...{ id: idOf(token), technicianId: technician.id, address },
    ...{ browser: browser?.slice(0, MOST_BROWSER_LETTERS) ?? null, createdAtMs: nowMs, seenAtMs: nowMs },
  });
  await noteAudit(context, { name: technician.name, kind: 'technician', address }, { what: 'signed-in' });
  return token;
}

/** What a passphrase is held against for a name that is nobody's: it takes as long as for somebody's. */
let nobodysHash: Promise<string> | null = null;

/** Whose name and passphrase these are. The one passphrase of before there were names is claimed by the first who has it. */
async function whoseAre(context: ConsoleContext, { name, passphrase }: Credentials): Promise<StoredTechnician | null> {
  const { access } = context.store;
  const found = (await access.technicianNamed(nameKeyOf(name))) ?? (await access.technicianNamed(''));
  nobodysHash ??= hashPassphrase(randomBytes(TOKEN_BYTES).toString('base64url'));
  const hash = found === null || found.hash === '' ? await nobodysHash : found.hash;
  if (!(await provesPassphrase(passphrase, hash)) || found === null || found.hash === '') return null;
  if (found.nameKey !== '') return found;
  const claimed = { ...found, name: name.trim(), nameKey: nameKeyOf(name) };
  await access.saveTechnician(claimed);
  return claimed;
}

/** Signs in; wrong tries are counted by address. Answers with what the cookie holds. */
export async function signIn(
  context: ConsoleContext,
  credentials: Credentials,
  place: SignInPlace,
): Promise<Outcome<string, 'passphrase-wrong' | 'passphrase-missing' | 'too-many-tries'>> {
  if (!(await hasTechnicians(context))) return failed('passphrase-missing');
  const { address } = place;
  const seconds = context.tries.waitSeconds(address, context.wallMs());
  if (seconds > 0) return failed('too-many-tries', { seconds });
  const technician = await whoseAre(context, credentials);
  if (technician !== null) return done(await openSignIn(context, technician, place));
  context.tries.failed(address, context.wallMs());
  // However many addresses somebody has, they do not fill the record.
  if (context.uses.failedSignIns.use('all', context.wallMs()) === null)
    await noteAudit(
      context,
      { name: '', kind: 'stranger', address },
      { what: 'sign-in-failed', subject: credentials.name },
    );
  return failed('passphrase-wrong');
}

export async function hasTechnicians(context: ConsoleContext): Promise<boolean> {
  return (await context.store.access.technicians()).length > 0;
}

/** Ends sign-ins at once: what hears from the console by them is told. */
export async function endSignIns(context: ConsoleContext, ids: readonly string[]): Promise<void> {
  await context.store.access.removeSignIns(ids);
  context.endedSignIns.tell(ids);
}

/** Ends all of one technician's but one. */
export async function endSignInsOf(
  context: ConsoleContext,
  technicianId: string,
  except: string | null = null,
): Promise<number> {
  const ids = (await context.store.access.signIns())
    .filter((each) => each.technicianId === technicianId && each.id !== except)
    .map(({ id }) => id);
  await endSignIns(context, ids);
  return ids.length;
}

export async function signOut(context: ConsoleContext, cookie: string | null, address: string | null): Promise<void> {
  const who = await signedInBy(context, cookie);
  if (who === null) return;
  await endSignIns(context, [who.signInId]);
  await noteAudit(context, { name: who.technician.name, kind: 'technician', address }, { what: 'signed-out' });
}

/** Who a sign-in cookie stands for; null for none, a forged one, or one that has ended. */
export async function signedInBy(context: ConsoleContext, cookie: string | null): Promise<SignedIn | null> {
  if (cookie === null) return null;
  const { access } = context.store;
  const found = await access.signIn(idOf(cookie));
  const nowMs = context.wallMs();
  if (found === null || isOver(found, nowMs)) return null;
  const technician = await access.technician(found.technicianId);
  if (technician === null) return null;
  if (nowMs - found.seenAtMs > NOTE_USE_MS) await access.noteSignInSeen(found.id, nowMs);
  return { technician, signInId: found.id };
}

/** Whether a sign-in, by its id, is still one. */
export async function signInStands(context: ConsoleContext, signInId: string): Promise<boolean> {
  const found = await context.store.access.signIn(signInId);
  return found !== null && !isOver(found, context.wallMs());
}

/** Sign-ins that go on, the one last used first. */
export async function openSignIns(context: ConsoleContext): Promise<StoredSignIn[]> {
  return (await context.store.access.signIns()).filter((each) => !isOver(each, context.wallMs()));
}

/** Upkeep: what has ended need not be kept. */
export async function forgetOldSignIns(context: ConsoleContext): Promise<void> {
  const nowMs = context.wallMs();
  await context.store.access.removeSignInsBefore(nowMs - LONGEST_MS, nowMs - IDLE_MS);
}
