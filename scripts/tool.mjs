/** Runs a TypeScript tool of this repository: `node scripts/tool.mjs lab/practice-line.ts [arguments]`. */
import { basename, join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { prepareProgram, ROOT } from './prepare.mjs';

await prepareProgram();
const { build } = await import('esbuild');
const [entry, ...args] = process.argv.slice(2);
const outfile = join(ROOT, 'dist', 'tools', `${basename(entry, '.ts')}.js`);
await build({
  absWorkingDir: ROOT,
  entryPoints: [entry],
  outfile,
  bundle: true,
  format: 'esm',
  platform: 'node',
  target: 'node20',
  packages: 'external',
  logLevel: 'warning',
});
process.chdir(ROOT);
process.argv = [process.argv[0], outfile, ...args];
await import(pathToFileURL(outfile));
