import { randomBytes } from 'node:crypto';
import { mkdtemp, open, readdir, realpath, rm, stat, statfs, type FileHandle } from 'node:fs/promises';
import { hostname } from 'node:os';
import { join, resolve } from 'node:path';
import type { ShareAsked, ShareFound, ShareSeries } from '@/core';
import { readFact } from '../machine/printed';
import { LookFault } from './look-fault';
import { mountOf, placeOf, readMounts } from './mount-of';
import { forgetCached } from './past-cache';

const MEGABYTE = 1e6;
/** One write or read. */
const PIECE_BYTES = 4 * 1024 * 1024;
/** A direction ends after so long, however much is left, ms. */
const MOST_MS = 60_000;
/** So much stays free on the store. */
const SPARE_BYTES = 64 * MEGABYTE;
const SAMPLE_MS = 250;
const PREFIX = `.bent-straw-${hostname().replace(/\W/g, '')}-`;

/** Counts what goes through, a sample every quarter of a second. */
class Count {
  readonly #fromMs = performance.now();
  readonly #series = { atMs: [] as number[], bytes: [] as number[] };
  #bytes = 0;

  add(bytes: number): void {
    this.#bytes += bytes;
    const atMs = performance.now() - this.#fromMs;
    if (atMs - (this.#series.atMs.at(-1) ?? 0) >= SAMPLE_MS) this.#note(atMs);
  }

  get isOver(): boolean {
    return performance.now() - this.#fromMs > MOST_MS;
  }

  #note(atMs: number): void {
    this.#series.atMs.push(Math.round(atMs * 10) / 10);
    this.#series.bytes.push(this.#bytes);
  }

  end(): ShareSeries {
    this.#note(performance.now() - this.#fromMs);
    return this.#series;
  }
}

const isAlive = (pid: number) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
};

/** What a look of this machine left when it was killed. */
async function removeLeft(folder: string): Promise<void> {
  for (const name of await readdir(folder)) {
    if (!name.startsWith(PREFIX)) continue;
    const pid = Number(/^(\d+)-/.exec(name.slice(PREFIX.length))?.[1]);
    if (pid > 0 && pid !== process.pid && !isAlive(pid))
      await rm(join(folder, name), { recursive: true, force: true }).catch(() => undefined);
  }
}

/** Each piece differs, so that no store can hold two as one. */
function pieces(): () => Buffer {
  const piece = randomBytes(PIECE_BYTES);
  let count = 0;
  return () => {
    piece.writeUInt32LE((count += 1), 0);
    for (let at = 4096; at < PIECE_BYTES; at += 4096) piece.writeUInt32LE(count ^ at, at);
    return piece;
  };
}

async function write(file: FileHandle, bytes: number, count: Count, signal: AbortSignal): Promise<number> {
  const next = pieces();
  let written = 0;
  while (written < bytes && !count.isOver) {
    signal.throwIfAborted();
    const { bytesWritten } = await file.write(next(), 0, Math.min(PIECE_BYTES, bytes - written));
    written += bytesWritten;
    count.add(bytesWritten);
  }
  await file.sync();
  return written;
}

async function read(path: string, count: Count, signal: AbortSignal): Promise<void> {
  const file = await open(path, 'r');
  try {
    const piece = Buffer.allocUnsafe(PIECE_BYTES);
    while (!count.isOver) {
      signal.throwIfAborted();
      const { bytesRead } = await file.read(piece, 0, PIECE_BYTES);
      if (bytesRead === 0) break;
      count.add(bytesRead);
    }
  } finally {
    await file.close();
  }
}

async function writeAll(paths: readonly string[], bytesEach: number, signal: AbortSignal): Promise<ShareSeries> {
  const opened: FileHandle[] = [];
  try {
    for (const path of paths) opened.push(await open(path, 'wx', 0o600));
    const count = new Count();
    await Promise.all(opened.map((file) => write(file, bytesEach, count, signal)));
    return count.end();
  } finally {
    await Promise.allSettled(opened.map((file) => file.close()));
  }
}

async function readAll(paths: readonly string[], signal: AbortSignal): Promise<ShareSeries | null> {
  // One that is not there any more is not one that is only in the memory.
  await Promise.all(paths.map((path) => stat(path)));
  for (const path of paths) if (!(await forgetCached(path))) return null;
  const count = new Count();
  await Promise.all(paths.map((path) => read(path, count, signal)));
  return count.end();
}

function faultOf(error: unknown, folder: string): unknown {
  const { code } = error as NodeJS.ErrnoException;
  switch (code) {
    case 'ENOSPC':
    case 'EDQUOT':
      return new LookFault('share-full', { folder });
    case 'EROFS':
    case 'EACCES':
    case 'EPERM':
      return new LookFault('share-refused', { folder });
    case 'ENOENT':
    case 'ENOTDIR':
      return new LookFault('share-missing', { folder });
    case 'EIO':
    case 'ESTALE':
    case 'EHOSTDOWN':
    case 'ENOTCONN':
    case 'ETIMEDOUT':
      return new LookFault('share-lost', { folder });
    case undefined:
    default:
      return error;
  }
}

/**
 * Writes files of random bytes to a folder until all of it is safe there (fsync(2)), and reads them back past this machine's own
 * memory. Whatever happens, nothing of it stays; what a killed look left is removed by the next. Throws LookFault.
 */
export async function lookAtShare(asked: ShareAsked, signal: AbortSignal): Promise<ShareFound> {
  const folder = resolve(asked.folder);
  let begun = false;
  try {
    if (!(await stat(folder)).isDirectory()) throw new LookFault('share-missing', { folder });
    await removeLeft(folder);
    const wanted = asked.megabytes * MEGABYTE;
    const { bavail, bsize } = await statfs(folder);
    if (bavail * bsize < wanted + SPARE_BYTES)
      throw new LookFault('share-small', {
        folder,
        free: Math.floor((bavail * bsize) / MEGABYTE),
        wanted: asked.megabytes,
      });
    const mount = mountOf(readMounts(readFact('/proc/self/mountinfo') ?? ''), await realpath(folder));
    begun = true;
    const own = await mkdtemp(join(folder, `${PREFIX}${process.pid}-`));
    try {
      const paths = Array.from({ length: asked.streams }, (_, place) => join(own, `${place}`));
      const written = await writeAll(paths, Math.ceil(wanted / asked.streams), signal);
      const read = await readAll(paths, signal);
      return {
        ...{ what: 'share' as const, folder, streams: asked.streams, written, read },
        ...{ fileSystem: mount?.fileSystem ?? 'unknown', source: mount?.source ?? 'unknown' },
        place: mount === null ? 'own-disk' : placeOf(mount),
      };
    } finally {
      await rm(own, { recursive: true, force: true, maxRetries: 3 }).catch(() => undefined);
    }
  } catch (error) {
    if (signal.aborted) throw new LookFault('look-stopped');
    const { code } = error as NodeJS.ErrnoException;
    if (begun && code === 'ENOENT') throw new LookFault('share-lost', { folder });
    throw faultOf(error, folder);
  }
}
