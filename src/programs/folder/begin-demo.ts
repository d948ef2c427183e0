import { existsSync, rmSync, writeFileSync } from 'node:fs';
import type { DataFiles } from './data-folder';

/**
 * Before the demo's database is opened: what a first start left that was interrupted is removed, for half a history would
 * be taken for a whole one. Returns what is called as soon as all of it is there.
 */
export function beginDemo({ database, demoPassphrase, demoUnfinished }: DataFiles): () => void {
  if (existsSync(demoUnfinished))
    for (const file of [database, `${database}-wal`, `${database}-shm`, demoPassphrase]) rmSync(file, { force: true });
  if (existsSync(database)) return () => undefined;
  writeFileSync(demoUnfinished, '', { mode: 0o600, flush: true });
  return () => rmSync(demoUnfinished, { force: true });
}
