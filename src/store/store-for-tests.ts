import { copyFileSync, existsSync } from 'node:fs';
import { join } from 'node:path';
import { openStore, type Store } from './store';

/** Lays down a new database: the copy of one that this worker made once, for making each anew is a third of many a test. */
export async function layDownDatabase(file: string): Promise<void> {
  const blank = join(process.env['BENT_STRAW_JEST_FOLDER']!, `blank-${process.env['JEST_WORKER_ID']}.sqlite`);
  if (!existsSync(blank)) await openStore(blank).then((store) => store.close());
  copyFileSync(blank, file);
}

/** A new store in a file that is not there yet. */
export async function openNewStore(file: string): Promise<Store> {
  await layDownDatabase(file);
  return openStore(file);
}
