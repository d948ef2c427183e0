import { createHash } from 'node:crypto';
import { appendFile, mkdir, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import * as z from 'zod';
import type { Lane, LaneMinute } from '@/core';
import type { LaneShelf, ShelfPart } from '@/session/lanes';
import { laneMinuteSchema, laneSchema, type LaneMinuteSent } from '@/wire';

/** Minutes of eight lanes for about four days; then the oldest go. */
const MOST_BYTES = 12e6;
const HOUR_MS = 3600_000;
const ENDING = '.ndjson';
const LANES_FILE = 'lanes.json';

export const sentMinute = ({ raw, ...minute }: LaneMinute): LaneMinuteSent => ({
  ...minute,
  raw: Buffer.from(raw).toString('base64'),
});

/**
 * Minutes of lanes on disk until the console has them: a file for each hour, which is put aside before it is handed in, so that
 * nothing is added to it meanwhile.
 */
export class DiskShelf implements LaneShelf {
  readonly #folder: string;
  #dropped = 0;

  constructor(folder: string, origin: string) {
    this.#folder = join(folder, createHash('sha256').update(origin).digest('hex').slice(0, 16));
  }

  async put(minutes: readonly LaneMinute[]): Promise<void> {
    if (minutes.length === 0) return;
    await mkdir(this.#folder, { recursive: true, mode: 0o700 });
    const file = join(this.#folder, `${Math.floor(minutes[0]!.fromMs / HOUR_MS)}${ENDING}`);
    await appendFile(file, minutes.map((minute) => `${JSON.stringify(sentMinute(minute))}\n`).join(''), {
      mode: 0o600,
    });
    await this.#bound();
  }

  async lanes(): Promise<readonly Lane[]> {
    try {
      return z.array(laneSchema).parse(JSON.parse(await readFile(join(this.#folder, LANES_FILE), 'utf8')));
    } catch {
      return [];
    }
  }

  async keepLanes(lanes: readonly Lane[]): Promise<void> {
    await mkdir(this.#folder, { recursive: true, mode: 0o700 });
    const file = join(this.#folder, LANES_FILE);
    await writeFile(`${file}.part`, JSON.stringify(lanes), { mode: 0o600 });
    await rename(`${file}.part`, file);
  }

  /** A line that a power cut left in the middle is left out. */
  async oldest(): Promise<ShelfPart | null> {
    const [name] = await this.#names();
    if (name === undefined) return null;
    const file = join(
      this.#folder,
      name.includes('-') ? name : `${name.slice(0, -ENDING.length)}-${Date.now()}${ENDING}`,
    );
    if (!name.includes('-')) await rename(join(this.#folder, name), file);
    const minutes = (await readFile(file, 'utf8')).split('\n').flatMap((line) => {
      try {
        return line === '' ? [] : [laneMinuteSchema.parse(JSON.parse(line))];
      } catch {
        return [];
      }
    });
    return { name: file, minutes };
  }

  async remove({ name }: ShelfPart): Promise<void> {
    await rm(name, { force: true });
  }

  takeDropped(): number {
    const dropped = this.#dropped;
    this.#dropped = 0;
    return dropped;
  }

  /** By hour; what was put aside before what was begun anew. */
  async #names(): Promise<string[]> {
    const names = (await readdir(this.#folder).catch(() => [])).filter((name) => name.endsWith(ENDING));
    const hourOf = (name: string) => Number(/^\d+/.exec(name)?.[0] ?? 0);
    return names.sort((a, b) => hourOf(a) - hourOf(b) || Number(b.includes('-')) - Number(a.includes('-')));
  }

  async #bound(): Promise<void> {
    const sizes = await Promise.all(
      (await this.#names()).map(async (name) => ({ name, bytes: (await stat(join(this.#folder, name))).size })),
    );
    let over = sizes.reduce((sum, { bytes }) => sum + bytes, 0) - MOST_BYTES;
    for (const { name, bytes } of sizes.slice(0, -1)) {
      if (over <= 0) return;
      await rm(join(this.#folder, name), { force: true });
      this.#dropped += 1;
      over -= bytes;
    }
  }
}
