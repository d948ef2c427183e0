import type { Migration } from './migration';

/** Runs whose figures came from a file: which file, by whom, and all of it gone again in one step. */
export const imports: Migration = {
  name: '0018-imports',
  statements: [
    // As in 0014: what a CHECK allows can be changed in place.
    `PRAGMA writable_schema = ON`,
    `UPDATE sqlite_schema SET sql = replace(sql, '''unfinished'', ''removed''))', '''unfinished'', ''removed'', ''imported''))')
       WHERE type = 'table' AND name = 'runs'`,
    `PRAGMA schema_version = 1000018`,
    `PRAGMA writable_schema = OFF`,
    `CREATE TABLE imports (id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites (id) ON DELETE CASCADE,
       fileName TEXT NOT NULL, sha256 TEXT NOT NULL, byName TEXT NOT NULL, madeAtMs REAL NOT NULL, runs INTEGER NOT NULL,
       state TEXT NOT NULL CHECK (state IN ('going', 'done', 'undone')))`,
    `CREATE INDEX imports_of_site ON imports (siteId, madeAtMs DESC)`,
    `ALTER TABLE runs ADD COLUMN importId TEXT`,
    `CREATE INDEX runs_imported ON runs (importId) WHERE importId IS NOT NULL`,
  ],
};
