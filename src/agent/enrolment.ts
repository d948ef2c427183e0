import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import * as z from 'zod';
import { stateFolder } from './known-devices';

const enrolmentSchema = z.object({ origin: z.string(), name: z.string(), officeName: z.string() });

/** Where this machine stands by, and under what name; the cookie that proves it is kept with the known devices. */
export type Enrolment = z.infer<typeof enrolmentSchema>;

const fileIn = (folder: string) => join(folder, 'agent.json');

/** Null: it has not joined yet, or the file cannot be read. */
export function readEnrolment(folder = stateFolder()): Enrolment | null {
  try {
    return enrolmentSchema.parse(JSON.parse(readFileSync(fileIn(folder), 'utf8')));
  } catch {
    return null;
  }
}

/** Throws what the file system says when it cannot be kept: an agent that forgets where it belongs is none. */
export function keepEnrolment(enrolment: Enrolment, folder = stateFolder()): void {
  const file = fileIn(folder);
  mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
  writeFileSync(`${file}.part`, `${JSON.stringify(enrolment, null, 2)}\n`, { mode: 0o600 });
  renameSync(`${file}.part`, file);
}
