import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';

/** The nearest folder above that has a package.json; the root where none has: an agent's one file stands alone. */
function folderOfPackage(folder: string): string {
  const above = dirname(folder);
  return existsSync(join(folder, 'package.json')) || above === folder ? folder : folderOfPackage(above);
}

/** The folder of the program: it is the same whether programs run bundled, from dist/, or from their source. */
export const PROGRAM_FOLDER = folderOfPackage(import.meta.dirname);

/** The program's version, from package.json; an agent's one file has it written into it when it is built. */
export function programVersion(): string {
  const built = process.env['BENT_STRAW_VERSION'];
  if (built !== undefined) return built;
  const { version } = JSON.parse(readFileSync(join(PROGRAM_FOLDER, 'package.json'), 'utf8')) as { version: string };
  return version;
}
