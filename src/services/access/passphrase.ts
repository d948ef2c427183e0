import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto';
import { promisify } from 'node:util';

/** RFC 7914. N = 2^15, r = 8 takes about 32 MB and 0.1 s: little for a person, much for whoever tries many. */
const COST = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 } as const satisfies ScryptOptions;
const KEY_BYTES = 32;
const SALT_BYTES = 16;

const derive = promisify<string, Buffer, number, ScryptOptions, Buffer>(scrypt);

/** `scrypt$N$r$p$salt$key`, salt and key in base64url: all that is needed to prove the passphrase again. */
export async function hashPassphrase(passphrase: string): Promise<string> {
  const salt = randomBytes(SALT_BYTES);
  const key = await derive(passphrase.normalize('NFKC'), salt, KEY_BYTES, COST);
  return ['scrypt', COST.N, COST.r, COST.p, salt.toString('base64url'), key.toString('base64url')].join('$');
}

/** Whether a passphrase is the one that was hashed; false also for a hash that cannot be read. */
export async function provesPassphrase(passphrase: string, hash: string): Promise<boolean> {
  const [scheme, N, r, p, salt, key] = hash.split('$');
  if (scheme !== 'scrypt' || salt === undefined || key === undefined) return false;
  const wanted = Buffer.from(key, 'base64url');
  const options = { N: Number(N), r: Number(r), p: Number(p), maxmem: COST.maxmem };
  const given = await derive(passphrase.normalize('NFKC'), Buffer.from(salt, 'base64url'), wanted.length, options);
  return timingSafeEqual(given, wanted);
}
