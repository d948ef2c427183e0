import type { StoredTechnician } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import { noteAudit } from '../audit/note-audit';
import type { ConsoleContext } from '../console/console-context';
import { proofOf, provesIt } from '../console/proofs';
import { nameKeyOf } from './name-key';
import { hashPassphrase, provesPassphrase } from './passphrase';
import { INVITATION_MS, passphraseToken, technicianOfLink } from './passphrase-links';
import { endSignInsOf, hasTechnicians, openSignIn, type Credentials, type SignInPlace } from './sign-in';

/** What opens the page on which the first passphrase is set; it opens nothing once there is one. */
export function welcomeToken({ signingKey }: Pick<ConsoleContext, 'signingKey'>): string {
  return proofOf(signingKey, 'welcome', 'first passphrase');
}

export function isWelcome({ signingKey }: ConsoleContext, token: string): boolean {
  return provesIt(signingKey, 'welcome', 'first passphrase', token);
}

function newTechnician(context: ConsoleContext, name: string, keeper: boolean): StoredTechnician {
  const nowMs = context.wallMs();
  return {
    ...{ id: context.newId(), name: name.trim(), nameKey: nameKeyOf(name), hash: '', keeper },
    ...{ addedAtMs: nowMs, setAtMs: nowMs },
  };
}

/** Makes the first technician, who keeps the console. Refused once there is one. */
export async function makeFirstTechnician(
  context: ConsoleContext,
  { name, passphrase }: Credentials,
): Promise<Outcome<StoredTechnician, 'welcome-over'>> {
  const hash = await hashPassphrase(passphrase);
  return context.peopleDesk.run(async () => {
    if (await hasTechnicians(context)) return failed('welcome-over');
    const first = { ...newTechnician(context, name, true), hash };
    await context.store.access.saveTechnician(first);
    return done(first);
  });
}

/** The same by the link of the first start, and signs him in. Answers with what the cookie holds. */
export async function setFirstPassphrase(
  context: ConsoleContext,
  token: string,
  credentials: Credentials,
  place: SignInPlace,
): Promise<Outcome<string, 'welcome-over'>> {
  if (!isWelcome(context, token)) return failed('welcome-over');
  const made = await makeFirstTechnician(context, credentials);
  return made.ok ? done(await openSignIn(context, made.value, place)) : made;
}

/** A link by which somebody sets a passphrase: path of the page, and until when it opens. */
export interface PassphraseLink {
  readonly name: string;
  readonly path: string;
  readonly untilMs: number;
}

/** Every link of before is over. */
async function linkFor(context: ConsoleContext, technician: StoredTechnician): Promise<PassphraseLink> {
  const untilMs = context.wallMs() + INVITATION_MS;
  // Later than the one before, also within the same millisecond.
  const renewed = { ...technician, setAtMs: Math.max(context.wallMs(), technician.setAtMs + 1) };
  await context.store.access.saveTechnician(renewed);
  return { name: technician.name, path: `/passphrase/${passphraseToken(context, renewed, untilMs)}`, untilMs };
}

/** Adds somebody, who sets a passphrase by the link that this answers with. */
export function addTechnician(context: ConsoleContext, name: string): Promise<Outcome<PassphraseLink, 'name-taken'>> {
  return context.peopleDesk.run(async () => {
    if ((await context.store.access.technicianNamed(nameKeyOf(name))) !== null)
      return failed('name-taken', { what: 'person', name });
    const added = newTechnician(context, name, false);
    await context.store.access.saveTechnician(added);
    return done(await linkFor(context, added));
  });
}

/** A new link for somebody who lost his, or forgot the passphrase. What he has goes on until the link is used. */
export function renewPassphraseLink(
  context: ConsoleContext,
  technicianId: string,
): Promise<Outcome<PassphraseLink, 'technician-unknown'>> {
  return context.peopleDesk.run(async () => {
    const technician = await context.store.access.technician(technicianId);
    return technician === null ? failed('technician-unknown') : done(await linkFor(context, technician));
  });
}

/** Whether others remain who may add and remove people. */
async function othersKeep(context: ConsoleContext, technicianId: string): Promise<boolean> {
  return (await context.store.access.technicians()).some(
    ({ id, keeper, hash }) => id !== technicianId && keeper && hash !== '',
  );
}

/** Removes somebody, with all that he is signed in with and the tokens that he made. The last one who keeps the console stays. */
export function removeTechnician(
  context: ConsoleContext,
  technicianId: string,
): Promise<Outcome<null, 'technician-unknown' | 'last-keeper'>> {
  return context.peopleDesk.run(async () => {
    const technician = await context.store.access.technician(technicianId);
    if (technician === null) return failed('technician-unknown');
    if (technician.keeper && !(await othersKeep(context, technicianId)))
      return failed('last-keeper', { name: technician.name });
    await endSignInsOf(context, technicianId);
    const { access } = context.store;
    for (const token of await access.apiTokens())
      if (token.madeBy === technician.name) await access.removeApiToken(token.id);
    await access.removeTechnician(technicianId);
    return done(null);
  });
}

/** Lets somebody add and remove others, or not any more. */
export function setKeeper(
  context: ConsoleContext,
  technicianId: string,
  keeper: boolean,
): Promise<Outcome<null, 'technician-unknown' | 'last-keeper'>> {
  return context.peopleDesk.run(async () => {
    const technician = await context.store.access.technician(technicianId);
    if (technician === null) return failed('technician-unknown');
    if (!keeper && technician.keeper && !(await othersKeep(context, technicianId)))
      return failed('last-keeper', { name: technician.name });
    await context.store.access.saveTechnician({ ...technician, keeper });
    return done(null);
  });
}

async function saveHash(
  context: ConsoleContext,
  technician: StoredTechnician,
  hash: string,
): Promise<StoredTechnician> {
  const changed = { ...technician, hash, setAtMs: Math.max(context.wallMs(), technician.setAtMs + 1) };
  await context.store.access.saveTechnician(changed);
  return changed;
}

/** Sets a passphrase by a link, ends what was signed in with the old one, and signs in. Answers with what the cookie holds. */
export async function setPassphraseByLink(
  context: ConsoleContext,
  token: string,
  passphrase: string,
  place: SignInPlace,
): Promise<Outcome<string, 'passphrase-link-over'>> {
  const hash = await hashPassphrase(passphrase);
  return context.peopleDesk.run(async () => {
    const technician = await technicianOfLink(context, token);
    if (technician === null) return failed('passphrase-link-over');
    const changed = await saveHash(context, technician, hash);
    await endSignInsOf(context, technician.id);
    const who = { name: technician.name, kind: 'technician', address: place.address } as const;
    await noteAudit(context, who, { what: 'passphrase-set' });
    return done(await openSignIn(context, changed, place));
  });
}

/** Changes one's own; every other sign-in of one's own ends. */
export function changePassphrase(
  context: ConsoleContext,
  self: { readonly id: string; readonly signInId: string; readonly address: string | null },
  { current, passphrase }: { readonly current: string; readonly passphrase: string },
): Promise<Outcome<null, 'technician-unknown' | 'passphrase-wrong' | 'too-many-tries'>> {
  return context.peopleDesk.run(async () => {
    const technician = await context.store.access.technician(self.id);
    if (technician === null) return failed('technician-unknown');
    const nowMs = context.wallMs();
    const seconds = context.tries.waitSeconds(self.address, nowMs);
    if (seconds > 0) return failed('too-many-tries', { seconds });
    if (!(await provesPassphrase(current, technician.hash))) {
      context.tries.failed(self.address, nowMs);
      return failed('passphrase-wrong');
    }
    await saveHash(context, technician, await hashPassphrase(passphrase));
    await endSignInsOf(context, technician.id, self.signInId);
    return done(null);
  });
}
