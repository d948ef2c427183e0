import { createCipheriv, createDecipheriv, hkdfSync, randomBytes, type KeyObject } from 'node:crypto';
import { secretOf } from './proofs';

const CIPHER = 'aes-256-gcm';
const IV_BYTES = 12;
const TAG_BYTES = 16;

/** A key for secrets that others gave us, from the console's own (HKDF, RFC 5869): who has the database alone reads nothing. */
function keyOf(signingKey: KeyObject): Buffer {
  return Buffer.from(hkdfSync('sha256', secretOf(signingKey), Buffer.alloc(0), 'bent-straw sealed secrets', 32));
}

/** A secret as it is kept: AES-256-GCM (NIST SP 800-38D), base64url of nonce, tag and text. */
export function seal(signingKey: KeyObject, secret: string): string {
  const iv = randomBytes(IV_BYTES);
  const cipher = createCipheriv(CIPHER, keyOf(signingKey), iv);
  const sealed = Buffer.concat([cipher.update(secret, 'utf8'), cipher.final()]);
  return Buffer.concat([iv, cipher.getAuthTag(), sealed]).toString('base64url');
}

/** Null: it was sealed with another key, or changed. */
export function unseal(signingKey: KeyObject, sealed: string): string | null {
  const bytes = Buffer.from(sealed, 'base64url');
  if (bytes.length < IV_BYTES + TAG_BYTES) return null;
  try {
    const decipher = createDecipheriv(CIPHER, keyOf(signingKey), bytes.subarray(0, IV_BYTES));
    decipher.setAuthTag(bytes.subarray(IV_BYTES, IV_BYTES + TAG_BYTES));
    const text = Buffer.concat([decipher.update(bytes.subarray(IV_BYTES + TAG_BYTES)), decipher.final()]);
    return text.toString('utf8');
  } catch {
    return null;
  }
}
