import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { lockFile } from '@/store/lock-file';

/**
 * Takes a folder for this process alone. Gives what lets go, or the process that has it (0 when that has not said which
 * it is). Which process it is stands beside the lock and is only told: it decides nothing.
 */
export async function lockFolder(folder: string): Promise<{ release(): void } | { readonly heldBy: number }> {
  const owner = join(folder, 'in-use.pid');
  const lock = await lockFile(join(folder, 'in-use.lock'));
  if (lock !== null) {
    writeFileSync(owner, `${process.pid}\n`);
    return lock;
  }
  try {
    return { heldBy: Number(readFileSync(owner, 'utf8')) || 0 };
  } catch {
    return { heldBy: 0 };
  }
}
