import { sign, verify, type KeyObject } from 'node:crypto';
import { publicKeyText, readPublicKey } from './ticket/key-text';

/** How a peer shows that it is the same as before: its public key, and its signature (Ed25519) under a challenge. */
export interface PeerIdentityShown {
  readonly publicKey: string;
  readonly proof: string;
}

const LONGEST_CHALLENGE = 64;
const signed = (challenge: string) => Buffer.from(`bent-straw peer identity ${challenge}`);

/** Null for a challenge that is none: a peer signs nothing long. */
export function showIdentity(key: KeyObject, challenge: string): PeerIdentityShown | null {
  if (challenge === '' || challenge.length > LONGEST_CHALLENGE) return null;
  return { publicKey: publicKeyText(key), proof: sign(null, signed(challenge), key).toString('base64url') };
}

/** The key that was proven; null when the proof does not hold. */
export function checkIdentity({ publicKey, proof }: PeerIdentityShown, challenge: string): string | null {
  const key = readPublicKey(publicKey);
  if (key === null) return null;
  return verify(null, signed(challenge), key, Buffer.from(proof, 'base64url')) ? publicKey : null;
}
