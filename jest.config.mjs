import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** What the tests of one run share: a database that was brought up to date once. Gone when Jest ends. */
const shared = mkdtempSync(join(tmpdir(), 'bent-straw-jest-'));
process.env.BENT_STRAW_JEST_FOLDER = shared;
process.once('exit', () => rmSync(shared, { recursive: true, force: true }));

/** @type {import('jest').Config} */
export default {
  roots: ['<rootDir>/src'],
  testMatch: ['**/*.test.{ts,tsx}'],
  testEnvironment: 'node',
  // No test is about time; on a machine whose disk is busy each write of the store waits.
  testTimeout: 30_000,
  // Inside Jest's sandbox every look at a global is slow; these are handed to each module, for simulations live on them.
  sandboxInjectedGlobals: ['Math', 'Number', 'Array', 'Float64Array', 'Map', 'JSON', 'Infinity'],
  // What a failure shows; the long ones that Jest asks for make each statement of the store cost more.
  setupFiles: ['<rootDir>/scripts/jest-stacks.cjs'],
  transform: {
    '^.+\\.(tsx?|mjs)$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          target: 'es2022',
          transform: { react: { runtime: 'automatic' } },
        },
        module: { type: 'commonjs' },
      },
    ],
  },
  // Packages that ship as modules only are turned into what Jest runs.
  transformIgnorePatterns: ['/node_modules/(?!httpxy/)'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
};
