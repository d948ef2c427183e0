/** Builds the pages (Next.js into .next/) and the programs (bundled into dist/). */
import { execFileSync } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';

const ROOT = join(import.meta.dirname, '..');
const VERSION = JSON.parse(readFileSync(join(ROOT, 'package.json'), 'utf8')).version;

const LEFT_OUTSIDE = ['next', 'nodemailer', 'pdfkit', 'pino', 'selfsigned', 'sequelize', 'sqlite3', 'umzug', 'werift'];
/** Packages of the older kind ask for what Node has. */
const REQUIRE = {
  js: "import { createRequire as requireBeside } from 'node:module'; const require = requireBeside(import.meta.url);",
};

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
  // What every start reads comes along; what is large, native or looks for its own files stays where it is.
  external: LEFT_OUTSIDE,
  banner: REQUIRE,
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
  banner: REQUIRE,
  logLevel: 'warning',
});
execFileSync(process.execPath, ['node_modules/next/dist/bin/next', 'build'], {
  cwd: ROOT,
  stdio: 'inherit',
  env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' },
});
