/** @type {import('jest').Config} */
export default {
  roots: ['<rootDir>/src'],
  testMatch: ['**/*.test.{ts,tsx}'],
  testEnvironment: 'node',
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      {
        jsc: { parser: { syntax: 'typescript', tsx: true }, target: 'es2022', transform: { react: { runtime: 'automatic' } } },
        module: { type: 'commonjs' },
      },
    ],
  },
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
};
