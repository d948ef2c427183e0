import type { ConsoleContext } from '../console/console-context';
import { proofOf, provesIt } from '../console/proofs';

/**
 * What may be read by a link counts its links, so that one that was revoked never opens again: n is open, -n revoked, null
 * was never shared.
 */
export type ShareNumber = number | null;

const isOpen = (number: ShareNumber): number is number => number !== null && number > 0;
const proven = (subject: string, number: number) => `${subject} ${number}`;

/** The end of the link that opens it now; null: none does. `subject`: what is shared, told apart from all else. */
export function sharedProof(
  { signingKey }: Pick<ConsoleContext, 'signingKey'>,
  subject: string,
  number: ShareNumber,
): string | null {
  return isOpen(number) ? proofOf(signingKey, 'share', proven(subject, number)) : null;
}

/** Whether the end of a link opens it now. */
export function opensByProof(
  { signingKey }: Pick<ConsoleContext, 'signingKey'>,
  subject: string,
  number: ShareNumber,
  proof: string,
): boolean {
  return isOpen(number) && provesIt(signingKey, 'share', proven(subject, number), proof);
}

/** The number once it is shared: the same where it is. */
export const shareOn = (number: ShareNumber): number => (isOpen(number) ? number : 1 + Math.abs(number ?? 0));
/** The number once it is not: the link that there was opens nothing from then on. */
export const shareOff = (number: ShareNumber): ShareNumber => (isOpen(number) ? -number : number);
