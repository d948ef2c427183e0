import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';

/** The nearest folder above that has a package.json. */
function folderOfPackage(folder: string): string {
  return existsSync(join(folder, 'package.json')) ? folder : folderOfPackage(dirname(folder));
}

/** The folder of the program: it is the same whether programs run bundled, from dist/, or from their source. */
export const PROGRAM_FOLDER = folderOfPackage(import.meta.dirname);

/** The program's version, from package.json. */
export function programVersion(): string {
  const { version } = JSON.parse(readFileSync(join(PROGRAM_FOLDER, 'package.json'), 'utf8')) as { version: string };
  return version;
}
