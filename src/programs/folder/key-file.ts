import type { KeyObject } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { newSigningKeyPem, readSigningKey } from '@/wire/peer/ticket';

/** The key in a file that only its owner may read; a new one the first time. */
export function ensureKeyFile(file: string): KeyObject {
  if (!existsSync(file)) {
    mkdirSync(dirname(file), { recursive: true });
    writeFileSync(file, newSigningKeyPem(), { mode: 0o600, flush: true });
  }
  return readSigningKey(readFileSync(file, 'utf8'));
}
