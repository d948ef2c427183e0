import { NOTED, SHOWN } from './0013-run-changes';
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
       state TEXT NOT NULL CHECK (state IN ('going', 'landing', 'done', 'undone')))`,
    `CREATE INDEX imports_of_site ON imports (siteId, madeAtMs DESC)`,
    `ALTER TABLE runs ADD COLUMN importId TEXT`,
    // The board shows none of them: its version stays, however many they are.
    `DROP TRIGGER board_version_insert`,
    `DROP TRIGGER board_version_update`,
    `CREATE TRIGGER board_version_insert AFTER INSERT ON runs WHEN NEW.importId IS NULL BEGIN ${NOTED} END`,
    `CREATE TRIGGER board_version_update AFTER UPDATE OF ${SHOWN} ON runs WHEN NEW.importId IS NULL BEGIN ${NOTED} END`,
    `CREATE INDEX runs_imported ON runs (importId) WHERE importId IS NOT NULL`,
  ],
};
