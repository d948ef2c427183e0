/** @type {import('jest').Config} */
export default {
  roots: ['<rootDir>/src'],
  testMatch: ['**/*.test.{ts,tsx}'],
  testEnvironment: 'node',
  // No test is about time; on a machine whose disk is busy each write of the store waits.
  testTimeout: 30_000,
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
