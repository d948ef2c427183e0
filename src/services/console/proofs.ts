import { createHmac, timingSafeEqual, type KeyObject } from 'node:crypto';

/** What a proof is for: one for a run is worth nothing for a device. */
export type Purpose = 'run' | 'turn' | 'device' | 'welcome' | 'passphrase' | 'share' | 'here' | 'here-link';

const secrets = new WeakMap<KeyObject, Buffer>();

/** The console's own secret as bytes: each request of a device asks for it, and writing a key out takes a while. */
export function secretOf(signingKey: KeyObject): Buffer {
  const known = secrets.get(signingKey);
  if (known !== undefined) return known;
  const secret = signingKey.export({ format: 'der', type: 'pkcs8' });
  secrets.set(signingKey, secret);
  return secret;
}

/**
 * Proofs that the console made something: an HMAC-SHA-256 (RFC 2104) over a purpose and an id, keyed with the
 * console's private key. Nothing has to be stored, and they outlive a restart.
 */
export function proofOf(signingKey: KeyObject, purpose: Purpose, id: string): string {
  return createHmac('sha256', secretOf(signingKey)).update(`bent-straw ${purpose} ${id}`).digest('base64url');
}

export function provesIt(signingKey: KeyObject, purpose: Purpose, id: string, proof: string): boolean {
  const expected = Buffer.from(proofOf(signingKey, purpose, id));
  const given = Buffer.from(proof);
  return expected.length === given.length && timingSafeEqual(expected, given);
}
