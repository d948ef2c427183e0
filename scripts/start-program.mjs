import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { prepareProgram, ROOT } from './prepare.mjs';

/** Installs and builds what is missing, then becomes the program: `file` of dist/ with the given arguments. */
export async function startProgram(file, args) {
  await prepareProgram();
  process.argv = [process.argv[0], join(ROOT, 'dist', file), ...args, ...process.argv.slice(2)];
  await import(pathToFileURL(join(ROOT, 'dist', file)));
}
