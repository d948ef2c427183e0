import { readFileSync } from 'node:fs';
import { join } from 'node:path';

/** The folder of the program: programs are bundled into dist/, one level below it. */
export const PROGRAM_FOLDER = join(import.meta.dirname, '..');

/** The program's version, from package.json. */
export function programVersion(): string {
  const { version } = JSON.parse(readFileSync(join(PROGRAM_FOLDER, 'package.json'), 'utf8')) as { version: string };
  return version;
}
