/** Brings a fresh clone to the point where it can run: Node's version, packages, build. Needs no packages itself. */
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

export const ROOT = join(import.meta.dirname, '..');
const LEAST_NODE = [20, 17];
const STAMPS = {
  packages: 'node_modules/.bent-straw-packages',
  compiled: 'node_modules/.bent-straw-compiled',
  build: 'dist/.bent-straw-build',
};

export function stopWith(code, sentence) {
  console.error(`${sentence} [${code}]`);
  process.exit(1);
}

function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  const [leastMajor, leastMinor] = LEAST_NODE;
  if (major > leastMajor || (major === leastMajor && minor >= leastMinor)) return;
  stopWith(
    'node-too-old',
    `Node ${process.versions.node} is too old. Install Node ${LEAST_NODE.join('.')} or newer, then start again.`,
  );
}

/** Runs a command; prints a line every ten seconds while it lasts, and all of its output when it fails. */
export function run(what, command, args, { env = {}, quiet = true } = {}) {
  return new Promise((resolve) => {
    const started = Date.now();
    if (quiet) console.log(`${what} …`);
    const child = spawn(command, args, {
      cwd: ROOT,
      env: { ...process.env, ...env },
      stdio: quiet ? ['ignore', 'pipe', 'pipe'] : 'inherit',
    });
    const output = [];
    child.stdout?.on('data', (part) => output.push(part));
    child.stderr?.on('data', (part) => output.push(part));
    const ticker = quiet
      ? setInterval(() => console.log(`  still at it after ${Math.round((Date.now() - started) / 1000)} s`), 10_000)
      : undefined;
    child.on('error', (error) =>
      stopWith('command-missing', `${command} cannot be run (${error.message}). Install it, then start again.`),
    );
    child.on('exit', (code) => {
      clearInterval(ticker);
      if (code !== 0 && quiet) process.stdout.write(Buffer.concat(output));
      resolve(code === 0);
    });
  });
}

function hashOf(paths) {
  const hash = createHash('sha256');
  const add = (path) => {
    const whole = join(ROOT, path);
    if (!existsSync(whole)) return;
    hash.update(path).update(readFileSync(whole));
  };
  for (const path of paths) {
    if (path.endsWith('/'))
      for (const entry of readdirSync(join(ROOT, path), { recursive: true, withFileTypes: true }).sort((a, b) =>
        join(a.parentPath, a.name).localeCompare(join(b.parentPath, b.name)),
      )) {
        if (entry.isFile() && !entry.name.includes('.test.'))
          add(join(entry.parentPath, entry.name).slice(ROOT.length + 1));
      }
    else add(path);
  }
  return hash.digest('hex');
}

const isCurrent = (stamp, hash) => existsSync(join(ROOT, stamp)) && readFileSync(join(ROOT, stamp), 'utf8') === hash;

/** Fetches the packages; what is to be compiled is left to `compilePackages`. */
export async function fetchPackages() {
  checkNode();
  const hash = hashOf(['package-lock.json']);
  if (isCurrent(STAMPS.packages, hash)) return;
  const options = ['--no-save', '--include=dev', '--ignore-scripts', '--no-audit', '--no-fund'];
  if (!(await run('Installing packages', 'npm', ['install', ...options])))
    stopWith(
      'install-failed',
      'The packages could not be installed. Read the lines above; the package registry must be reachable.',
    );
  writeFileSync(join(ROOT, STAMPS.packages), hash);
}

/** sqlite3 ships as source. With -O1 instead of its own -O3 it compiles in half the time; its queries take a tenth longer. */
export async function compilePackages() {
  const hash = hashOf(['package-lock.json']);
  if (isCurrent(STAMPS.compiled, hash)) return;
  const what = 'Compiling sqlite3 (a minute or two, once)';
  if (!(await run(what, 'npm', ['rebuild', 'sqlite3'], { env: { CFLAGS: '-O1' } })))
    stopWith(
      'compile-failed',
      'sqlite3 could not be compiled. Read the lines above; make, g++ and python3 are needed.',
    );
  writeFileSync(join(ROOT, STAMPS.compiled), hash);
}

const BUILD_INPUTS = [
  'src/',
  'package-lock.json',
  'next.config.ts',
  'postcss.config.mjs',
  'tsconfig.json',
  'scripts/build.mjs',
];

export async function buildProgram() {
  const hash = hashOf(BUILD_INPUTS);
  if (isCurrent(STAMPS.build, hash)) return;
  const built = await run('Building (about a minute)', process.execPath, ['scripts/build.mjs']);
  if (!built) stopWith('build-failed', 'The program could not be built. Read the lines above.');
  mkdirSync(join(ROOT, 'dist'), { recursive: true });
  writeFileSync(join(ROOT, STAMPS.build), hash);
}

/** All that a fresh clone needs before it can run; the compiler and the build do not wait for each other. */
export async function prepareProgram() {
  await fetchPackages();
  await Promise.all([compilePackages(), buildProgram()]);
}
