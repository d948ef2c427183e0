import { createHash } from 'node:crypto';
import { constants, createReadStream } from 'node:fs';
import { mkdir, open as openFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { guessReading, type ImportReading } from '@/core';
import { diskTroubleOf, type StoredImport } from '@/store';
import { done, failed, LARGEST_IMPORT, type ConsoleFaultCode, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import {
  checkImport,
  MOST_IMPORTED,
  runsOfFile,
  type ImportCheck,
  type ReadFile,
  type RefusedLine,
} from './check-import';
import { linesOf, shapeOf } from './import-file';
import { importRows } from './import-rows';
import { openImportsOf, type OpenImport } from './open-imports';

type Answer<Value, Code extends ConsoleFaultCode = never> = Promise<Outcome<Value, Code>>;
const FIRST_LINES = 50;
const EXAMPLES = 3;

/** Somebody wants to bring a file of so many bytes into an office. */
export async function openImport(
  context: ConsoleContext,
  { siteId, fileName, bytes }: { readonly siteId: string; readonly fileName: string; readonly bytes: number },
): Answer<OpenImport, 'site-missing' | 'import-too-large' | 'import-busy'> {
  if ((await context.store.sites.byId(siteId)) === null) return failed('site-missing');
  if (bytes > LARGEST_IMPORT) return failed('import-too-large', { most: LARGEST_IMPORT / 1e6 });
  await forgetLeftImports(context);
  const id = context.newId();
  await mkdir(context.uploads, { recursive: true, mode: 0o700 });
  const open: OpenImport = {
    ...{ id, siteId, fileName, bytes, file: join(context.uploads, id), touchedMs: context.wallMs() },
    ...{ receivedBytes: 0, whole: null, job: null, check: null },
  };
  return openImportsOf(context).add(open) ? done(open) : failed('import-busy');
}

async function sha256Of(file: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const part of createReadStream(file)) hash.update(part as Buffer);
  return hash.digest('hex');
}

async function guessOf({ file }: OpenImport): Promise<OpenImport['whole']> {
  const shape = await shapeOf(file);
  if (!shape.ok) return null;
  const lines: (readonly string[])[] = [];
  for await (const { cells } of linesOf(file, shape.value)) {
    if (cells !== null) lines.push(cells);
    if (lines.length >= FIRST_LINES) break;
  }
  const { headings } = shape.value;
  const examples = headings.map((_, place) =>
    lines.flatMap((line) => ((line[place] ?? '').trim() === '' ? [] : [line[place]!.slice(0, 60)])).slice(0, EXAMPLES),
  );
  return { sha256: await sha256Of(file), shape: shape.value, examples, guess: guessReading(headings, lines) };
}

const DISK_TROUBLE = ['ENOSPC', 'EDQUOT', 'EROFS', 'EIO'];

/** Writes bytes into a file at their place, so that a part which comes once more changes nothing; why not, where the disk is full. */
async function writtenAt(file: string, place: number, bytes: Uint8Array): Promise<string | null> {
  try {
    const handle = await openFile(file, constants.O_RDWR | constants.O_CREAT, 0o600);
    try {
      await handle.write(bytes, 0, bytes.length, place);
    } finally {
      await handle.close();
    }
    return null;
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code !== undefined && DISK_TROUBLE.includes(code)) return code;
    throw error;
  }
}

/** The next part of a file. Parts come in order; one that came already, because its answer was lost, is not taken twice. */
export async function receiveImport(
  context: ConsoleContext,
  id: string,
  fromByte: number,
  part: Uint8Array,
): Answer<OpenImport, 'import-unknown' | 'import-part' | 'import-unreadable' | 'store-full'> {
  const open = openImportsOf(context).get(id);
  if (open === null) return failed('import-unknown');
  open.touchedMs = context.wallMs();
  if (fromByte + part.length <= open.receivedBytes) return done(open);
  if (fromByte !== open.receivedBytes || fromByte + part.length > open.bytes)
    return failed('import-part', { expected: open.receivedBytes });
  const reason = await writtenAt(open.file, fromByte, part);
  if (reason !== null) return failed('store-full', { reason });
  open.receivedBytes = Math.max(open.receivedBytes, fromByte + part.length);
  if (open.receivedBytes < open.bytes) return done(open);
  open.whole = await guessOf(open);
  if (open.whole !== null) return done(open);
  await closeImport(context, id);
  return failed('import-unreadable');
}

/** Throws a file away; what is being done with it stops, and leaves nothing behind. */
export async function closeImport(context: ConsoleContext, id: string): Promise<void> {
  const open = openImportsOf(context).forget(id);
  if (open !== null) await rm(open.file, { force: true });
}

/** Files that somebody opened and went away from. */
export async function forgetLeftImports(context: ConsoleContext): Promise<void> {
  for (const { id } of openImportsOf(context).left(context.wallMs())) await closeImport(context, id);
}

async function readFileOf(context: ConsoleContext, open: OpenImport, reading: ImportReading, tag: string) {
  const site = await context.store.sites.byId(open.siteId);
  const whole = open.whole;
  if (site === null || whole === null) return null;
  const rows = await importRows(context, open.siteId, tag);
  const of: ReadFile = { file: open.file, shape: whole.shape, reading, timeZone: site.timeZone, rows };
  return { whole, of };
}

/** Does one thing with a file at a time: a look that is under way gives way to the next one. */
async function withJob<Value>(
  open: OpenImport,
  what: 'check' | 'take-in',
  act: (progress: Parameters<typeof checkImport>[2]) => Promise<Value>,
): Answer<Value, 'import-stopped'> {
  open.job?.abort.abort();
  const job = { what, abort: new AbortController(), readBytes: 0 };
  open.job = job;
  try {
    return done(await act({ signal: job.abort.signal, read: (bytes) => (job.readBytes = bytes) }));
  } catch (error) {
    if (job.abort.signal.aborted) return failed('import-stopped');
    throw error;
  } finally {
    if (open.job === job) open.job = null;
  }
}

/** What a file would bring when it is read in one way. Changes nothing. */
export async function lookAtImport(
  context: ConsoleContext,
  id: string,
  reading: ImportReading,
): Answer<ImportCheck, 'import-unknown' | 'import-stopped' | 'import-taking'> {
  const open = openImportsOf(context).get(id);
  const read = open === null ? null : await readFileOf(context, open, reading, '');
  if (open === null || read === null) return failed('import-unknown');
  if (open.job?.what === 'take-in') return failed('import-taking');
  open.touchedMs = context.wallMs();
  const looked = await withJob(open, 'check', (progress) => checkImport(context, read.of, progress));
  if (looked.ok) open.check = looked.value;
  return looked;
}

/** How a file is taken in. */
export interface TakeIn {
  readonly importId: string;
  readonly reading: ImportReading;
  /** Put on each of its runs; blank: nothing. */
  readonly tag: string;
  /** Whether lines that cannot be read are left out; else one of them stops it all. */
  readonly without: boolean;
}

type TakeInFault =
  | ('import-unknown' | 'import-stopped' | 'import-taking' | 'import-twice')
  | ('import-refused' | 'import-nothing' | 'import-too-many' | 'store-full');

/** Stops at what makes it impossible. */
class CannotTakeIn extends Error {
  constructor(
    readonly code: 'import-refused' | 'import-nothing' | 'import-too-many',
    readonly facts: Readonly<Record<string, number>> = {},
  ) {
    super(code);
  }
}

/** Brings the runs of a file into the record, all of them or none. Whoever looks meanwhile sees none of them. */
export async function takeIn(
  context: ConsoleContext,
  byName: string,
  { importId, reading, tag, without }: TakeIn,
): Answer<StoredImport, TakeInFault> {
  const { imports } = context.store;
  const open = openImportsOf(context).get(importId);
  const read = open === null ? null : await readFileOf(context, open, reading, tag);
  if (open === null || read === null) return failed('import-unknown');
  if (open.job?.what === 'take-in') return failed('import-taking');
  const { siteId, fileName } = open;
  const before = await imports.ofContent(siteId, read.whole.sha256);
  if (before !== null) return failed('import-twice', { name: before.fileName, who: before.byName });
  const made = { id: importId, siteId, fileName, sha256: read.whole.sha256, byName, madeAtMs: context.wallMs() };
  const refuse = (line: RefusedLine | string) => {
    if (typeof line !== 'string' && !without) throw new CannotTakeIn('import-refused', { line: line.number });
  };
  try {
    const taken = await withJob(open, 'take-in', async (progress) => {
      let runs = 0;
      await imports.begin(made);
      for await (const { rows } of runsOfFile(context, read.of, progress, refuse)) {
        runs += rows.length;
        if (runs > MOST_IMPORTED) throw new CannotTakeIn('import-too-many', { most: MOST_IMPORTED });
        if (rows.length > 0) await imports.write(made, rows);
      }
      if (runs === 0) throw new CannotTakeIn('import-nothing');
      progress.signal.throwIfAborted();
      await imports.finish({ id: importId, runs });
      return { ...made, runs, state: 'done' as const };
    });
    if (!taken.ok) await imports.takeBack(importId);
    else await closeImport(context, importId);
    return taken;
  } catch (error) {
    // Where even that is impossible the next start does it.
    await imports.takeBack(importId).catch(() => undefined);
    if (error instanceof CannotTakeIn) return failed(error.code, error.facts);
    const reason = diskTroubleOf(error);
    if (reason === null) throw error;
    return failed('store-full', { reason });
  }
}

/** Takes all runs of a file out of the record again. */
export async function undoImport(context: ConsoleContext, importId: string): Answer<StoredImport, 'import-unknown'> {
  const { imports } = context.store;
  const stored = await imports.byId(importId);
  if (stored?.state !== 'done') return failed('import-unknown');
  await imports.takeBack(importId);
  return done({ ...stored, state: 'undone' });
}

/** What was being written when the program ended is taken back, what was written comes to light, and files that were open are thrown away. */
export async function clearImports(context: ConsoleContext): Promise<void> {
  const { imports } = context.store;
  for (const { id, state } of await imports.leftGoing())
    await (state === 'landing' ? imports.land(id) : imports.takeBack(id));
  await rm(context.uploads, { recursive: true, force: true });
}
