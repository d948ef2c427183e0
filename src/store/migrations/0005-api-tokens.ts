import type { Migration } from './migration';

/** Tokens by which scripts use the API. */
export const apiTokens: Migration = {
  name: '0005-api-tokens',
  statements: [
    // The id is the hash of the token: a copy of the file opens nothing.
    `CREATE TABLE api_tokens (
      id TEXT PRIMARY KEY, name TEXT NOT NULL UNIQUE, createdAtMs REAL NOT NULL, usedAtMs REAL)`,
  ],
};
