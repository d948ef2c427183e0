import type { Migration } from './migration';

/** What was removed, so that it can be put back. */
export const removals: Migration = {
  name: '0006-removals',
  statements: [
    `CREATE TABLE removals (
      id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites(id) ON DELETE CASCADE,
      kind TEXT NOT NULL CHECK (kind IN ('device', 'peer')), name TEXT NOT NULL, removed JSON NOT NULL,
      removedAtMs REAL NOT NULL)`,
  ],
};
