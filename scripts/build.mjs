/** Builds the pages (Next.js into .next/) and the programs (bundled into dist/, packages left outside). */
import { execFileSync } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';

const ROOT = join(import.meta.dirname, '..');
const VERSION = JSON.parse(readFileSync(join(ROOT, 'package.json'), 'utf8')).version;

// Chunks are named after what they hold: those of earlier builds would stay for ever.
rmSync(join(ROOT, 'dist'), { recursive: true, force: true });
await build({
  absWorkingDir: ROOT,
  entryPoints: [
    'launch',
    'peer-cli',
    'agent-cli',
    'recompute-cli',
    'backup-cli',
    'restore-cli',
    'check-cli',
    'passphrase-cli',
    'console-main',
    'peer-main',
    'practice-main',
    'demo-devices-main',
    'own-agent-main',
    'health',
    'unit-cli',
    'think-main',
  ].map((name) => `src/programs/entry/${name}.ts`),
  outdir: 'dist',
  bundle: true,
  splitting: true,
  format: 'esm',
  platform: 'node',
  target: 'node20',
  packages: 'external',
  sourcemap: true,
  logLevel: 'warning',
});
// The agent again, as one file with all that it needs: consoles hand it out to machines that have only Node.
await build({
  absWorkingDir: ROOT,
  entryPoints: ['src/programs/entry/agent-cli.ts'],
  outfile: 'dist/agent.mjs',
  bundle: true,
  minify: true,
  format: 'esm',
  platform: 'node',
  target: 'node20',
  define: { 'process.env.BENT_STRAW_VERSION': JSON.stringify(VERSION) },
  // Packages of the older kind among them ask for what Node has.
  banner: { js: "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);" },
  logLevel: 'warning',
});
execFileSync(process.execPath, ['node_modules/next/dist/bin/next', 'build'], {
  cwd: ROOT,
  stdio: 'inherit',
  env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' },
});
