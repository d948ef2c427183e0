import { constants, type FileHandle, mkdir, open, readdir, readFile, rename, rm, stat } from 'node:fs/promises';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import type { Outbox, OutboxEntry } from '@/session';
import { handInRequestSchema } from '@/wire';

const ENDING = '.json';
const RUN_ID = /^[\w-]{1,64}$/;
/** Room for some weeks of runs three times an hour. */
const MOST_BYTES = 500e6;

export interface OutboxLimits {
  /** So much may wait altogether; then the oldest results go. */
  readonly mostBytes?: number;
  /** Hears how many went. */
  readonly onDropped?: (many: number) => void;
}

async function written(file: string, text: string): Promise<void> {
  const handle: FileHandle = await open(file, 'w', 0o600);
  try {
    await handle.writeFile(text);
    await handle.sync();
  } finally {
    await handle.close();
  }
}

/** What a folder holds is on the disk only once the folder itself is. Some systems do not let one be opened. */
async function syncFolder(folder: string): Promise<void> {
  const handle = await open(folder, constants.O_RDONLY).catch(() => null);
  await handle?.sync().catch(() => undefined);
  await handle?.close();
}

/** Names of what waits, the oldest first; those of one moment by name. */
async function byAge(place: string): Promise<{ readonly name: string; readonly bytes: number }[]> {
  const names = (await readdir(place).catch(() => [])).filter((each) => each.endsWith(ENDING)).sort();
  const aged = await Promise.all(
    names.map(async (name) => {
      const found = await stat(join(place, name)).catch(() => null);
      return { name, atMs: found?.mtimeMs ?? 0, bytes: found?.size ?? 0 };
    }),
  );
  return aged.sort((a, b) => a.atMs - b.atMs);
}

/** Lets the oldest go until the rest has room; the newest stays whatever its size. How many went. */
async function bound(place: string, mostBytes: number): Promise<number> {
  const waiting = await byAge(place);
  let over = waiting.reduce((sum, { bytes }) => sum + bytes, 0) - mostBytes;
  let dropped = 0;
  for (const { name, bytes } of waiting.slice(0, -1)) {
    if (over <= 0) break;
    await rm(join(place, name), { force: true });
    over -= bytes;
    dropped += 1;
  }
  return dropped;
}

/**
 * Results on disk until the console has them, one file each, named after the run: written whole beside it, synced, then
 * renamed, so that a power cut leaves either nothing or all of it. `folder` holds one folder a console.
 */
export function diskOutbox(
  folder: string,
  origin: string,
  { mostBytes = MOST_BYTES, onDropped = () => undefined }: OutboxLimits = {},
): Outbox {
  const place = join(folder, createHash('sha256').update(origin).digest('hex').slice(0, 16));
  const fileOf = (runId: string) => {
    if (!RUN_ID.test(runId)) throw new TypeError(`not a run's id: ${runId}`);
    return join(place, runId + ENDING);
  };
  return {
    put: async ({ runId, request }) => {
      const file = fileOf(runId);
      await mkdir(place, { recursive: true, mode: 0o700 });
      await written(`${file}.part`, JSON.stringify(request));
      await rename(`${file}.part`, file);
      await syncFolder(place);
      const dropped = await bound(place, mostBytes);
      if (dropped > 0) onDropped(dropped);
    },
    all: async () => {
      const entries: OutboxEntry[] = [];
      for (const { name } of await byAge(place)) {
        try {
          const request = handInRequestSchema.parse(JSON.parse(await readFile(join(place, name), 'utf8')));
          entries.push({ runId: name.slice(0, -ENDING.length), request });
        } catch {
          // Damaged: kept for whoever looks, and never handed in.
          await rename(join(place, name), join(place, `${name}.damaged`)).catch(() => undefined);
        }
      }
      return entries;
    },
    remove: (runId) => rm(fileOf(runId), { force: true }),
  };
}
