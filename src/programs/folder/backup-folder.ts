import {
  copyFileSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statfsSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { basename, join } from 'node:path';
import * as z from 'zod';
import { checkStore, copyStore, type StoreCheck } from '@/store';
import { dataFiles } from './data-folder';
import { ProgramFault } from '../faults/program-faults';
import { storeFault } from '../faults/store-fault';
import { programVersion } from './version';

/** Besides the database: the keys by which devices, peers and browsers know this console again. */
const KEY_FILES = ['console-key.pem', 'peer-key.pem', 'demo-peer-key.pem', 'certificate.pem', 'certificate-key.pem'];
const LABEL = 'backup.json';
const NIGHTS_KEPT = 7;

const labelSchema = z.object({ madeAtMs: z.number(), version: z.string(), runs: z.number() });
export type BackupLabel = z.infer<typeof labelSchema>;

/** A copy that lies in a folder. */
export interface Backup extends BackupLabel {
  readonly folder: string;
}

/**
 * Copies a data folder, database and keys, into a new folder, also while the console runs; the database is looked at
 * afterwards. Nothing that is there is written over; a copy that fails is taken away again. Throws ProgramFault.
 */
export async function backUp(dataFolder: string, to: string, nowMs: number): Promise<Backup & StoreCheck> {
  const { database } = dataFiles(dataFolder);
  if (!existsSync(database)) throw new ProgramFault('data-missing', { folder: dataFolder });
  if (existsSync(to)) throw new ProgramFault('copy-exists', { folder: to });
  const part = `${to}.part`;
  rmSync(part, { recursive: true, force: true });
  try {
    mkdirSync(part, { recursive: true, mode: 0o700 });
    const found = await copyStore(database, join(part, basename(database)));
    for (const name of KEY_FILES)
      if (existsSync(join(dataFolder, name))) copyFileSync(join(dataFolder, name), join(part, name));
    const label: BackupLabel = { madeAtMs: nowMs, version: programVersion(), runs: found.runs };
    writeFileSync(join(part, LABEL), `${JSON.stringify(label, null, 2)}\n`, { mode: 0o600, flush: true });
    // Whole or not there at all.
    renameSync(part, to);
    return { ...label, ...found, folder: to };
  } catch (error) {
    rmSync(part, { recursive: true, force: true });
    if ((error as NodeJS.ErrnoException).code === 'ENOSPC' || /SQLITE_FULL|disk is full/.test(String(error)))
      throw new ProgramFault('data-full', { folder: to });
    throw storeFault(error, dataFolder);
  }
}

/** What is written on a copy; null for a folder that is none. */
export function labelOf(folder: string): BackupLabel | null {
  try {
    return labelSchema.safeParse(JSON.parse(readFileSync(join(folder, LABEL), 'utf8'))).data ?? null;
  } catch {
    return null;
  }
}

/** The copies in a folder of copies, the newest first. */
export function backupsIn(folder: string): Backup[] {
  if (!existsSync(folder)) return [];
  return readdirSync(folder)
    .map((name) => join(folder, name))
    .filter((path) => statSync(path).isDirectory())
    .flatMap((path) => {
      const label = labelOf(path);
      return label === null ? [] : [{ ...label, folder: path }];
    })
    .sort((one, other) => other.madeAtMs - one.madeAtMs);
}

const nameOf = (kind: 'night' | 'asked', nowMs: number) => {
  const stamp = new Date(nowMs).toISOString().replace(/[:.]/g, '-');
  return `${kind}-${kind === 'night' ? stamp.slice(0, 10) : stamp.slice(0, 19)}`;
};

/** What whoever may write there without rights of his own still has, bytes. */
function freeBytes(folder: string): number {
  const { bavail, bsize } = statfsSync(folder);
  return bavail * bsize;
}

/** 0 where it is not there. */
const sizeOf = (file: string) => statSync(file, { throwIfNoEntry: false })?.size ?? 0;

const nightsIn = (place: string) => backupsIn(place).filter(({ folder }) => basename(folder).startsWith('night-'));

/**
 * Makes sure that a copy leaves as much room as the records take: a disk that is full of copies would keep no run any more. The
 * oldest nights go for it, but for the newest. Throws ProgramFault where that would not be enough; then none goes.
 */
function makeRoom(dataFolder: string, place: string, free: (folder: string) => number): void {
  const { database } = dataFiles(dataFolder);
  const needed = 2 * sizeOf(database);
  const oldest = nightsIn(place).slice(1).reverse();
  let bytes = free(dataFolder);
  const going = oldest.filter(({ folder }) => {
    if (bytes >= needed) return false;
    bytes += sizeOf(join(folder, basename(database)));
    return true;
  });
  if (bytes < needed)
    throw new ProgramFault('copy-no-room', { folder: dataFolder, needed: inGB(needed), free: inGB(free(dataFolder)) });
  for (const { folder } of going) rmSync(folder, { recursive: true, force: true });
}

const inGB = (bytes: number) => (bytes / 1e9).toFixed(1);

/**
 * A copy into the data folder's own copies. Of those of the nights the newest seven are kept, fewer where there is no room for them;
 * others are nobody's to remove.
 */
export async function keepBackup(
  dataFolder: string,
  kind: 'night' | 'asked',
  nowMs: number,
  free = freeBytes,
): Promise<Backup> {
  const place = dataFiles(dataFolder).backups;
  makeRoom(dataFolder, place, free);
  const made = await backUp(dataFolder, join(place, nameOf(kind, nowMs)), nowMs);
  for (const { folder } of nightsIn(place).slice(NIGHTS_KEPT)) rmSync(folder, { recursive: true, force: true });
  return made;
}

/** Whether this night's copy is still to be made: none of the last day is there. */
export function nightIsDue(dataFolder: string, nowMs: number): boolean {
  const [newest] = nightsIn(dataFiles(dataFolder).backups);
  return newest === undefined || !basename(newest.folder).endsWith(new Date(nowMs).toISOString().slice(0, 10));
}

/**
 * Puts a copy back. The copy is looked at first (damaged and newer ones are refused), and what is there now is laid
 * aside whole, never deleted. Gives the folder in which that lies; null when there was nothing. Throws ProgramFault.
 */
export async function restore(from: string, dataFolder: string, nowMs: number): Promise<string | null> {
  const copy = join(from, basename(dataFiles(dataFolder).database));
  if (labelOf(from) === null || !existsSync(copy)) throw new ProgramFault('copy-missing', { folder: from });
  await checkStore(copy).catch((error: unknown) => {
    throw storeFault(error, from);
  });
  const names = [...KEY_FILES, ...['', '-wal', '-shm'].map((ending) => basename(copy) + ending)];
  const present = names.filter((name) => existsSync(join(dataFolder, name)));
  const aside = join(dataFolder, `before-restore-${new Date(nowMs).toISOString().replace(/[:.]/g, '-')}`);
  const part = join(dataFolder, 'restore.part');
  rmSync(part, { recursive: true, force: true });
  mkdirSync(part, { recursive: true, mode: 0o700 });
  for (const name of names) if (existsSync(join(from, name))) copyFileSync(join(from, name), join(part, name));
  if (present.length > 0) mkdirSync(aside, { recursive: true, mode: 0o700 });
  for (const name of present) renameSync(join(dataFolder, name), join(aside, name));
  for (const name of readdirSync(part)) renameSync(join(part, name), join(dataFolder, name));
  rmSync(part, { recursive: true, force: true });
  return present.length > 0 ? aside : null;
}
