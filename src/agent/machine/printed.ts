import { execFile } from 'node:child_process';
import { readFileSync } from 'node:fs';

const PATIENCE_MS = 4000;
/** Three hundred networks, each with all that it says. */
const MOST_BYTES = 8 * 1024 * 1024;

/** What a program printed; null: it is not there, or it failed. */
export function printed(command: string, args: readonly string[], patienceMs = PATIENCE_MS): Promise<string | null> {
  const options = { timeout: patienceMs, maxBuffer: MOST_BYTES, env: { ...process.env, LC_ALL: 'C' } };
  return new Promise((resolve) =>
    execFile(command, [...args], options, (error, text) => resolve(error === null ? text : null)),
  );
}

/** A file of the kernel's without its line end; null: it is not there, or the kernel refuses it (the speed of a cable that is out). */
export function readFact(file: string): string | null {
  try {
    return readFileSync(file, 'utf8').trim();
  } catch {
    return null;
  }
}

/** A number above 0 in such a file; null: none. */
export function positiveFact(file: string): number | null {
  const value = Number(readFact(file) ?? '');
  return value > 0 ? value : null;
}
