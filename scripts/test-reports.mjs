/**
 * What the steps of `npm test` left in their reports: how many tests there were, which failed and with which words, and how
 * those are run once more.
 */
import { existsSync, readFileSync } from 'node:fs';
import { relative } from 'node:path';

const read = (path) => (existsSync(path) ? JSON.parse(readFileSync(path, 'utf8')) : null);
const noCounts = () => ({ passed: 0, failed: 0, skipped: 0 });
/** Of what leaves none. */
export const NO_REPORT = { counts: noCounts(), failed: [], secondTries: [] };
const noReport = () => structuredClone(NO_REPORT);
const COLOURS = /\x1b\[[0-9;]*m/g;
const LINES_OF_AN_ERROR = 6;

const firstLines = (text) =>
  text
    .replace(COLOURS, '')
    .split('\n')
    .filter((line) => line.trim() !== '')
    .slice(0, LINES_OF_AN_ERROR)
    .join('\n');

/** Of a report by Jest. A file that did not load has no test that failed: it stands for itself. */
function readJest(path, root) {
  const report = read(path);
  if (report === null) return noReport();
  const failed = report.testResults.flatMap(({ name, status, message, assertionResults }) => {
    const file = relative(root, name);
    const tests = assertionResults
      .filter((test) => test.status === 'failed')
      .map(({ fullName, failureMessages }) => ({
        file,
        again: file,
        name: fullName,
        words: firstLines(failureMessages.join('\n')),
      }));
    return status === 'failed' && tests.length === 0
      ? [{ file, again: file, name: 'did not load', words: firstLines(message) }]
      : tests;
  });
  return {
    counts: { passed: report.numPassedTests, failed: failed.length, skipped: report.numPendingTests },
    ...{ failed, secondTries: [] },
  };
}

/** Every test of a Playwright report, with its file, which is told from the folder of the tests. */
const testsOf = (suites) => suites.flatMap((suite) => [...suite.specs, ...testsOf(suite.suites ?? [])]);

/** Of a report by Playwright, whose tests have had their second try when it ends. */
function readPlaywright(path) {
  const report = read(path);
  if (report === null) return noReport();
  const { expected, unexpected, flaky, skipped } = report.stats;
  const named = (wanted) =>
    testsOf(report.suites).flatMap(({ file, line, title, tests }) =>
      tests
        .filter(({ status }) => status === wanted)
        .map(({ results }) => ({
          ...{ file: `e2e/${file}`, again: `e2e/${file}:${line}`, name: title },
          words: firstLines(results.findLast(({ error }) => error !== undefined)?.error.message ?? ''),
        })),
    );
  return {
    counts: { passed: expected + flaky, failed: unexpected, skipped },
    ...{ failed: named('unexpected'), secondTries: named('flaky') },
  };
}

/** Of the short lab, which counts only. */
const readLab = (path) => ({ ...noReport(), counts: read(path) ?? noCounts() });

const READERS = { jest: readJest, playwright: readPlaywright, lab: readLab };

/**
 * What a step's report says: `counts` of passed, failed and skipped tests; `failed` and `secondTries` with the file, the
 * name, the first words of the error, and `again`, by which the step runs that one alone.
 */
export const readReport = (kind, path, root) => READERS[kind](path, root);
