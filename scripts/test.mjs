/**
 * Everything that must hold before a change lands: layout, lint, import rules, types, unit tests, the interface in three
 * browsers. Installs and builds what is missing, the browsers too. All steps run; the last lines say what failed.
 */
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { constants, setPriority } from 'node:os';
import { join } from 'node:path';
import { buildProgram, compilePackages, fetchPackages, ROOT, run, stopWith } from './prepare.mjs';

const RESULTS = join(ROOT, 'test-results');
/** What the tests drive or measure with, and Debian's package that brings it. */
const NEEDED = {
  '/usr/bin/chromium': 'chromium',
  '/usr/bin/firefox-esr': 'firefox-esr',
  '/usr/bin/pdftotext': 'poppler-utils',
  '/usr/bin/WebKitWebDriver': 'webkit2gtk-driver',
  '/usr/bin/Xvfb': 'xvfb',
  '/usr/sbin/nginx': 'nginx-light',
  '/usr/sbin/nft': 'nftables',
  '/usr/bin/ping': 'iputils-ping',
  '/usr/bin/pgrep': 'procps',
};

/** Takes half of the processor's time; a Debian that does not have it tests with the other. */
const QUICKER = ['/usr/bin/chromium-headless-shell', 'chromium-headless-shell'];
const APT = ['install', '-y', '--no-install-recommends'];
const QUIETLY = { env: { DEBIAN_FRONTEND: 'noninteractive' } };

async function installPackages() {
  const missing = () =>
    Object.entries(NEEDED)
      .filter(([file]) => !existsSync(file))
      .map(([, name]) => name);
  const [quicker, quickerName] = QUICKER;
  if (missing().length === 0 && existsSync(quicker)) return;
  // A package whose own service does not start here is there all the same.
  await run('Reading the list of Debian packages', 'apt-get', ['update']);
  if (missing().length > 0) await run(`Installing ${missing().join(', ')}`, 'apt-get', [...APT, ...missing()], QUIETLY);
  if (!existsSync(quicker)) await run(`Installing ${quickerName}`, 'apt-get', [...APT, quickerName], QUIETLY);
  const names = missing();
  if (names.length > 0)
    stopWith('packages-missing', `The tests need Debian's ${names.join(', ')}. Install them, then start again.`);
}

const bin = (name) => join('node_modules', '.bin', name);

/** These read the source, and the types that the build makes of the pages. */
const STATIC_STEPS = [
  ['layout (oxfmt)', bin('oxfmt'), ['--check']],
  ['lint and types (oxlint)', bin('oxlint'), ['--type-check', '--deny-warnings']],
  ['import rules (dependency-cruiser)', bin('depcruise'), ['src', '--config', '.dependency-cruiser.cjs']],
];
/** What neither measures nor waits for a moment may take its time, so it runs behind. It needs nothing that is built. */
const UNHURRIED = 'src/(core|wire|ui|store|services|session|app)/';
const LONG_MS = '300000';
const unitStep = (what, name, ...which) => [
  what,
  bin('jest'),
  ['--maxWorkers', '2', '--json', '--outputFile', `test-results/${name}.json`, ...which],
];
const UNIT_STEP = unitStep('unit tests (jest)', 'jest', '--testPathIgnorePatterns', UNHURRIED);
const UNHURRIED_STEP = unitStep(
  'unit tests that take their time (jest)',
  'jest-unhurried',
  ...['--testTimeout', LONG_MS, '--testPathPatterns', UNHURRIED],
);
const LAB_STEP = ['accuracy (short lab)', process.execPath, ['scripts/tool.mjs', 'lab/short.ts']];
/** Waits for a good part of its time, for a measurement takes as long as it takes: what measures nothing runs behind it. */
const MEASURED_STEP = [
  'interface, what is measured (playwright)',
  bin('playwright'),
  ['test', '--project', 'measured', '--workers', '1'],
];
const SEEN_STEP = [
  'interface, what is seen (playwright)',
  bin('playwright'),
  ['test', '--project', 'seen', '--workers', '3'],
];
/** Benches and proofs in their shortest form: that they go through, and say what they did. */
const TOOLS_STEP = [
  'tools (playwright)',
  bin('playwright'),
  ['test', '--config', 'playwright.tools.config.ts', '--workers', '1'],
];
const reportOf = (what) => join(RESULTS, `${what.replace(/\W+/g, '-')}.json`);
const envOf = (what) => ({ PLAYWRIGHT_JSON_OUTPUT_NAME: reportOf(what), FORCE_COLOR: '0' });

function counts() {
  const read = (path) => (existsSync(path) ? JSON.parse(readFileSync(path, 'utf8')) : null);
  const units = ['jest', 'jest-unhurried'].flatMap((name) => read(join(RESULTS, `${name}.json`)) ?? []);
  const lab = read(join(RESULTS, 'lab.json'));
  const browser = [MEASURED_STEP, SEEN_STEP, TOOLS_STEP].flatMap(([what]) => read(reportOf(what))?.stats ?? []);
  const sum = (...values) => values.reduce((all, value) => all + (value ?? 0), 0);
  return {
    passed: sum(
      ...units.map((unit) => unit.numPassedTests),
      lab?.passed,
      ...browser.flatMap(({ expected, flaky }) => [expected, flaky]),
    ),
    failed: sum(
      ...units.map((unit) => unit.numFailedTests),
      lab?.failed,
      ...browser.map(({ unexpected }) => unexpected),
    ),
    skipped: sum(...units.map((unit) => unit.numPendingTests), lab?.skipped, ...browser.map((stats) => stats.skipped)),
  };
}

rmSync(RESULTS, { recursive: true, force: true });
mkdirSync(RESULTS, { recursive: true });

const secondsSince = (started) => Math.round((Date.now() - started) / 1000);

/** What it runs gets only the time that nobody else wants: the kernel shares it out by session first, then by process. */
function leaveRoom({ pid }) {
  setPriority(pid, constants.priority.PRIORITY_LOW);
  try {
    writeFileSync(`/proc/${pid}/autogroup`, '19');
  } catch {
    // A kernel that does not share out by session.
  }
}

const failed = [];
const behind = new Set();
process.once('exit', () => behind.forEach(({ pid }) => process.kill(-pid)));
for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, () => process.exit(130));

/** Runs a step to its end behind all others and prints what it said in one piece. */
function runBehind([what, command, args]) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: ROOT, env: { ...process.env, ...envOf(what) }, detached: true });
    leaveRoom(child);
    behind.add(child);
    const started = Date.now();
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => (said += part));
    child.once('close', (code) => {
      behind.delete(child);
      console.log(`\n— ${what}, ${secondsSince(started)} s\n${said.trim()}`);
      if (code !== 0) failed.push(what);
      resolve();
    });
  });
}

async function runInFront([what, command, args]) {
  console.log(`\n— ${what}`);
  const started = Date.now();
  if (!(await run(what, command, args, { quiet: false, env: envOf(what) }))) failed.push(what);
  console.log(`— ${what} took ${secondsSince(started)} s`);
}

const packages = installPackages();
await fetchPackages();
const compiled = compilePackages();
const unhurried = compiled.then(() => runBehind(UNHURRIED_STEP));
await Promise.all([compiled, buildProgram(), packages]);
const read = Promise.all(STATIC_STEPS.map(runBehind));
await runInFront(UNIT_STEP);
await runInFront(LAB_STEP);
const tools = Promise.all([unhurried, read]).then(() => runBehind(TOOLS_STEP));
await runInFront(MEASURED_STEP);
await Promise.all([unhurried, read]);
await runInFront(SEEN_STEP);
await tools;

const { passed, failed: failedTests, skipped } = counts();
console.log(failed.length === 0 ? '\nEverything holds.' : `\nFailed: ${failed.join('; ')}. Their output is above.`);
console.log(`${passed} passed, ${failedTests} failed, ${skipped} skipped`);
process.exit(failed.length === 0 ? 0 : 1);
