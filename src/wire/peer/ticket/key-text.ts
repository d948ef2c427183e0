import { createPrivateKey, createPublicKey, generateKeyPairSync, type KeyObject } from 'node:crypto';

/** A public key as one reads it out or pastes it: the 32 raw bytes of Ed25519 (RFC 8032) in base64url, 43 characters. */
export type PublicKeyText = string;

const KEY_TEXT = /^[A-Za-z0-9_-]{43}$/;

export function publicKeyText(key: KeyObject): PublicKeyText {
  const publicKey = key.type === 'private' ? createPublicKey(key) : key;
  const { x } = publicKey.export({ format: 'jwk' });
  if (x === undefined) throw new TypeError('not an Ed25519 key');
  return x;
}

/** The key behind a text; null when the text is not an Ed25519 public key. */
export function readPublicKey(text: string): KeyObject | null {
  if (!KEY_TEXT.test(text)) return null;
  try {
    return createPublicKey({ key: { kty: 'OKP', crv: 'Ed25519', x: text }, format: 'jwk' });
  } catch {
    return null;
  }
}

/** A new signing key as PEM (PKCS #8), for a file that only its owner may read. */
export function newSigningKeyPem(): string {
  return generateKeyPairSync('ed25519').privateKey.export({ format: 'pem', type: 'pkcs8' }).toString();
}

export function readSigningKey(pem: string): KeyObject {
  return createPrivateKey(pem);
}
