/**
 * Everything that must hold before a change lands: layout, lint, import rules, types, unit tests, the interface in a
 * browser. Installs and builds what is missing, Debian's Chromium too. All steps run; the last lines say what failed.
 */
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { buildProgram, installPackages, ROOT, run, stopWith } from './prepare.mjs';

const CHROMIUM = '/usr/bin/chromium';
const RESULTS = join(ROOT, 'test-results');

async function installChromium() {
  if (existsSync(CHROMIUM)) return;
  const installed =
    (await run('Reading the list of Debian packages', 'apt-get', ['update'])) &&
    (await run('Installing Chromium', 'apt-get', ['install', '-y', '--no-install-recommends', 'chromium', 'procps']));
  if (!installed)
    stopWith(
      'chromium-missing',
      `${CHROMIUM} is needed for the tests of the interface. Install Debian's package chromium.`,
    );
}

const bin = (name) => join('node_modules', '.bin', name);

/** These read the source alone, so they run side by side. */
const STATIC_STEPS = [
  ['layout (prettier)', bin('prettier'), ['--check', '--log-level', 'warn', '.']],
  ['lint (eslint)', bin('eslint'), ['.']],
  ['import rules (dependency-cruiser)', bin('depcruise'), ['src', '--config', '.dependency-cruiser.cjs']],
  ['types (tsc)', bin('tsc'), ['-p', '.']],
];

const STEPS = [
  ['unit tests (jest)', bin('jest'), ['--maxWorkers', '2', '--json', '--outputFile', 'test-results/jest.json']],
  ['accuracy (short lab)', process.execPath, ['scripts/tool.mjs', 'lab/short.ts']],
  ['interface (playwright)', bin('playwright'), ['test', '--reporter=list,json']],
];

function counts() {
  const read = (name) =>
    existsSync(join(RESULTS, name)) ? JSON.parse(readFileSync(join(RESULTS, name), 'utf8')) : null;
  const jest = read('jest.json');
  const playwright = read('playwright.json')?.stats;
  const lab = read('lab.json');
  return {
    passed: (jest?.numPassedTests ?? 0) + (playwright?.expected ?? 0) + (playwright?.flaky ?? 0) + (lab?.passed ?? 0),
    failed: (jest?.numFailedTests ?? 0) + (playwright?.unexpected ?? 0) + (lab?.failed ?? 0),
    skipped: (jest?.numPendingTests ?? 0) + (playwright?.skipped ?? 0) + (lab?.skipped ?? 0),
  };
}

await Promise.all([installPackages(), installChromium()]);
await buildProgram();
rmSync(RESULTS, { recursive: true, force: true });
mkdirSync(RESULTS, { recursive: true });

/** Runs a step to its end and prints what it said in one piece. */
function runQuietly([what, command, args]) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: ROOT, env: { ...process.env, FORCE_COLOR: '0' } });
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => (said += part));
    child.once('close', (code) => {
      console.log(`\n— ${what}\n${said.trim()}`);
      resolve(code === 0);
    });
  });
}

const failed = [];
await Promise.all(STATIC_STEPS.map(async (step) => (await runQuietly(step)) || failed.push(step[0])));
for (const [what, command, args] of STEPS) {
  console.log(`\n— ${what}`);
  const env = { PLAYWRIGHT_JSON_OUTPUT_NAME: join(RESULTS, 'playwright.json'), FORCE_COLOR: '0' };
  if (!(await run(what, command, args, { quiet: false, env }))) failed.push(what);
}

const { passed, failed: failedTests, skipped } = counts();
console.log(failed.length === 0 ? '\nEverything holds.' : `\nFailed: ${failed.join('; ')}. Their output is above.`);
console.log(`${passed} passed, ${failedTests} failed, ${skipped} skipped`);
process.exit(failed.length === 0 ? 0 : 1);
