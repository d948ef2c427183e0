import type { StoredTechnician } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { proofOf, provesIt } from '../console/proofs';

/** An invitation is handed over; what was made at the machine is used at once. */
export const INVITATION_MS = 24 * 3600_000;
export const RESET_MS = 30 * 60_000;

/**
 * What opens the page on which one technician sets a passphrase. It names the state that it was made for, so that it
 * opens once: with a new passphrase, or a later link, it is over.
 */
export function passphraseToken(
  { signingKey }: Pick<ConsoleContext, 'signingKey'>,
  { id, setAtMs }: Pick<StoredTechnician, 'id' | 'setAtMs'>,
  untilMs: number,
): string {
  const claim = `${id}~${Math.round(setAtMs)}~${Math.round(untilMs)}`;
  return `${Buffer.from(claim).toString('base64url')}.${proofOf(signingKey, 'passphrase', claim)}`;
}

/** Whose passphrase a link sets; null for one that is forged, over or used. */
export async function technicianOfLink(context: ConsoleContext, token: string): Promise<StoredTechnician | null> {
  const [encoded = '', proof = ''] = token.split('.');
  const claim = Buffer.from(encoded, 'base64url').toString();
  if (!provesIt(context.signingKey, 'passphrase', claim, proof)) return null;
  const [id = '', setAt, until] = claim.split('~');
  if (!(Number(until) > context.wallMs())) return null;
  const technician = await context.store.access.technician(id);
  return technician !== null && Math.round(technician.setAtMs) === Number(setAt) ? technician : null;
}
