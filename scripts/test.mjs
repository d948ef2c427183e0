/**
 * Everything that must hold before a change lands: layout, lint, import rules, types, unit tests, the interface in three
 * browsers. Installs and builds what is missing, the browsers too. All steps run; the last lines say what failed.
 */
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { constants, setPriority } from 'node:os';
import { join } from 'node:path';
import { buildProgram, compilePackages, fetchPackages, ROOT, run, stopWith } from './prepare.mjs';
import { NO_REPORT, readReport } from './test-reports.mjs';
import {
  LAB_STEP,
  MEASURED_STEP,
  SEEN_STEP,
  STATIC_STEPS,
  TOOLS_STEP,
  UNHURRIED_STEP,
  UNIT_STEP,
} from './test-steps.mjs';

const RESULTS = join(ROOT, 'test-results');
/** More than these are no mishap. */
const MOST_AGAIN = 5;
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

/** What failed, or had to be tried twice, step by step. */
const outcomes = [];
const behind = new Set();
process.once('exit', () => behind.forEach(({ pid }) => process.kill(-pid)));
for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, () => process.exit(130));

const envOf = ({ env }) => ({ FORCE_COLOR: '0', ...env });
const reportOf = ({ kind, report }) => readReport(kind, join(RESULTS, `${report}.json`), ROOT);

function note(step, succeeded) {
  const { counts, failed, secondTries } = step.kind === undefined ? NO_REPORT : reportOf(step);
  outcomes.push({ step, succeeded, counts, failed, secondTries });
}

/** Runs a step to its end behind all others and prints what it said in one piece. */
function runBehind(step) {
  return new Promise((resolve) => {
    const { what, command, args } = step;
    const child = spawn(command, args, { cwd: ROOT, env: { ...process.env, ...envOf(step) }, detached: true });
    leaveRoom(child);
    behind.add(child);
    const started = Date.now();
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => (said += part));
    child.once('close', (code) => {
      behind.delete(child);
      console.log(`\n— ${what}, ${secondsSince(started)} s\n${said.trim()}`);
      note(step, code === 0);
      resolve();
    });
  });
}

async function runInFront(step) {
  const { what, command, args } = step;
  console.log(`\n— ${what}`);
  const started = Date.now();
  note(step, await run(what, command, args, { quiet: false, env: envOf(step) }));
  console.log(`— ${what} took ${secondsSince(started)} s`);
}

/** Real runs on a shared machine: a few that failed amid others are run once more with nothing beside them, to the same bounds. */
async function runAgainAlone() {
  const few = outcomes.filter(
    ({ step, failed }) => step.again !== undefined && failed.length > 0 && failed.length <= MOST_AGAIN,
  );
  for (const outcome of few) {
    const step = outcome.step.again([...new Set(outcome.failed.map(({ again }) => again))]);
    console.log(`\n— once more, alone: ${outcome.failed.map(({ name }) => name).join('; ')}`);
    const succeeded = await run(step.what, step.command, step.args, { quiet: false, env: envOf(step) });
    const { failed } = reportOf(step);
    const held = outcome.failed.filter(
      ({ file, name }) => !failed.some((other) => other.file === file && other.name === name),
    );
    if (!succeeded && failed.length === 0) continue;
    outcome.secondTries.push(...held);
    outcome.counts.passed += held.length;
    outcome.counts.failed = failed.length;
    outcome.failed = failed;
    outcome.succeeded = succeeded;
  }
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
await runAgainAlone();

const total = (which) => outcomes.reduce((sum, { counts }) => sum + counts[which], 0);
const told = (tests) =>
  tests.map(({ file, name, words }) => `  ${file}: ${name}\n${words.replace(/^/gm, '      ')}`).join('\n');
const twice = outcomes.flatMap(({ secondTries }) => secondTries);
if (twice.length > 0) console.log(`\nHeld at the second try:\n${told(twice)}`);
const bad = outcomes.filter(({ succeeded }) => !succeeded);
for (const { step, failed } of bad)
  console.log(`\nFailed: ${step.what}${failed.length === 0 ? '. Its output is above.' : `\n${told(failed)}`}`);
if (bad.length === 0) console.log('\nEverything holds.');
console.log(
  `${total('passed')} passed, ${total('failed')} failed, ${total('skipped')} skipped, ${twice.length} at the second try`,
);
process.exit(bad.length === 0 ? 0 : 1);
