import { randomBytes, type KeyObject } from 'node:crypto';
import type { ConsoleContext } from '../console/console-context';
import { proofOf, provesIt } from '../console/proofs';

/** A link that was printed opens once, and not later than this, ms. */
const LINK_LIFE_MS = 12 * 3600_000;

export const HERE_COOKIE = 'bent-straw-here';
/** After that the link of a later start is asked for again. */
export const HERE_COOKIE_SECONDS = 30 * 24 * 3600;

/**
 * What opens the device page without a code, for whoever reads the terminal of this machine: an address proves nothing,
 * since behind a proxy everybody has the same one, and a page of another site can be made to look local.
 */
export function hereToken(signingKey: KeyObject, nowMs: number): string {
  const claim = `${randomBytes(9).toString('base64url')}-${Math.floor(nowMs + LINK_LIFE_MS)}`;
  return `${claim}.${proofOf(signingKey, 'here-link', claim)}`;
}

/** Trades a link's token for what a cookie holds; null when it is none, too old, or was used. */
export function openHere(context: ConsoleContext, token: string): string | null {
  const [claim = '', proof = ''] = token.split('.');
  const untilMs = Number(claim.split('-').at(-1));
  if (!provesIt(context.signingKey, 'here-link', claim, proof) || !(untilMs > context.wallMs())) return null;
  if (context.hereLinks.has(claim)) return null;
  context.hereLinks.add(claim);
  const id = randomBytes(12).toString('base64url');
  return `${id}.${proofOf(context.signingKey, 'here', id)}`;
}

/** Whether a cookie proves that its browser was opened by whoever reads this machine's terminal. */
export function isHere({ signingKey }: Pick<ConsoleContext, 'signingKey'>, cookie: string | null): boolean {
  const [id = '', proof = ''] = cookie?.split('.') ?? [];
  return id !== '' && provesIt(signingKey, 'here', id, proof);
}
