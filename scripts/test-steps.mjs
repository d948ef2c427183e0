/** The steps of `npm test` that leave a report: what each runs, and how the tests of it that failed are run once more. */
import { join } from 'node:path';

const bin = (name) => join('node_modules', '.bin', name);

/** These read the source, and the types that the build makes of the pages. */
export const STATIC_STEPS = [
  { what: 'layout (oxfmt)', command: bin('oxfmt'), args: ['--check'] },
  { what: 'lint and types (oxlint)', command: bin('oxlint'), args: ['--type-check', '--deny-warnings'] },
  {
    ...{ what: 'import rules (dependency-cruiser)', command: bin('depcruise') },
    args: ['src', '--config', '.dependency-cruiser.cjs'],
  },
];

const jest = (what, report, workers, timeoutMs, ...args) => ({
  ...{ what, kind: 'jest', report, command: bin('jest') },
  args: [
    ...['--maxWorkers', workers, '--testTimeout', timeoutMs],
    ...['--json', '--outputFile', `test-results/${report}.json`, ...args],
  ],
  again: (files) => jest(what, `${report}-again`, '1', timeoutMs, ...files),
});

const playwright = (what, report, ...args) => ({
  ...{ what, kind: 'playwright', report, command: bin('playwright') },
  args: ['test', ...args],
  env: { PLAYWRIGHT_JSON_OUTPUT_NAME: `test-results/${report}.json` },
  again: (tests) => playwright(what, `${report}-again`, ...args, '--workers', '1', ...tests),
});

/** What neither measures nor waits for a moment may take its time, so it runs behind. It needs nothing that is built. */
const UNHURRIED = 'src/(core|wire|ui|store|services|session|app)/';
const USUAL_MS = '30000';
const LONG_MS = '300000';

/** Waits for most of its time. */
export const UNIT_STEP = jest('unit tests (jest)', 'units', '3', USUAL_MS, '--testPathIgnorePatterns', UNHURRIED);
export const UNHURRIED_STEP = jest(
  ...['unit tests that take their time (jest)', 'units-unhurried', '2', LONG_MS],
  ...['--testPathPatterns', UNHURRIED],
);
/** Makes anew by itself what was held up from outside. */
export const LAB_STEP = {
  ...{ what: 'accuracy (short lab)', kind: 'lab', report: 'lab', command: process.execPath },
  args: ['scripts/tool.mjs', 'lab/short.ts'],
};
/** Waits for a good part of its time, for a measurement takes as long as it takes: what measures nothing runs behind it. */
export const MEASURED_STEP = playwright(
  ...['interface, what is measured (playwright)', 'measured'],
  ...['--project', 'measured', '--workers', '1'],
);
export const SEEN_STEP = playwright(
  ...['interface, what is seen (playwright)', 'seen'],
  ...['--project', 'seen', '--workers', '3'],
);
/** Benches and proofs in their shortest form: that they go through, and say what they did. */
export const TOOLS_STEP = playwright(
  ...['tools (playwright)', 'tools'],
  ...['--config', 'playwright.tools.config.ts', '--workers', '1'],
);
