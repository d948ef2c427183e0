import type { Migration } from './migration';

const NAMED = ['device', 'spot', 'peer', 'line'] as const;

/** The names that a run has, of which an office has few however many runs there are. */
const namesOf = (row: 'NEW' | 'runs', from = '') =>
  NAMED.map(
    (field) => `INSERT OR IGNORE INTO run_names SELECT ${row}.siteId, '${field}', ${row}.${field}Name${from}
      WHERE ${row}.${field}Name IS NOT NULL;`,
  );

/**
 * What the ledger is narrowed and sorted by, all in one index, so that the runs with their long reports need not be read;
 * tags and notes; why a run is left out; views that people named.
 */
export const ledger: Migration = {
  name: '0014-ledger',
  statements: [
    // A run may be removed and put back. What a CHECK allows can be changed in place (SQLite, ALTER TABLE, section 7): no row
    // is written; the new version lets the schema be read anew.
    `PRAGMA writable_schema = ON`,
    `UPDATE sqlite_schema SET sql = replace(sql, '''finished'', ''unfinished''))', '''finished'', ''unfinished'', ''removed''))')
       WHERE type = 'table' AND name = 'runs'`,
    `UPDATE sqlite_schema SET sql = replace(sql, '''peer'', ''line''))', '''peer'', ''line'', ''runs''))')
       WHERE type = 'table' AND name = 'removals'`,
    `PRAGMA schema_version = 1000014`,
    `PRAGMA writable_schema = OFF`,
    `ALTER TABLE runs ADD COLUMN leftOut TEXT`,
    `ALTER TABLE runs ADD COLUMN flags TEXT NOT NULL DEFAULT ''`,
    `UPDATE runs SET flags = (SELECT coalesce(' ' || group_concat(value, ' ') || ' ', '') FROM json_each(runs.brief, '$.flags'))
       WHERE brief IS NOT NULL`,
    `CREATE TABLE run_names (siteId TEXT NOT NULL REFERENCES sites (id) ON DELETE CASCADE, field TEXT NOT NULL,
       name TEXT NOT NULL, PRIMARY KEY (siteId, field, name)) WITHOUT ROWID`,
    ...namesOf('runs', ' FROM runs'),
    `CREATE TRIGGER run_names_insert AFTER INSERT ON runs BEGIN ${namesOf('NEW').join(' ')} END`,
    `CREATE TRIGGER run_names_update AFTER UPDATE OF siteId, deviceName, spotName, peerName, lineName ON runs
       BEGIN ${namesOf('NEW').join(' ')} END`,
    `CREATE TABLE run_tags (runId TEXT NOT NULL REFERENCES runs (id) ON DELETE CASCADE, tag TEXT NOT NULL,
       siteId TEXT NOT NULL, PRIMARY KEY (runId, tag)) WITHOUT ROWID`,
    `CREATE INDEX run_tags_of_site ON run_tags (siteId, tag, runId)`,
    `CREATE INDEX runs_noted ON runs (siteId, startedAtMs) WHERE notes <> ''`,
    `DROP INDEX runs_newest`,
    `CREATE INDEX runs_ledger ON runs (siteId, startedAtMs DESC, id DESC, deviceName, spotName, peerName, lineName, deviceId,
       linkKind, reach, status, reason, verdict, evidence, profile, downBps, upBps, idleMs, addedMs, flags)`,
    `CREATE TABLE ledger_views (id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites (id) ON DELETE CASCADE,
       name TEXT NOT NULL, query TEXT NOT NULL, byName TEXT NOT NULL, madeAtMs REAL NOT NULL)`,
    `CREATE UNIQUE INDEX ledger_views_by_name ON ledger_views (siteId, name)`,
  ],
};
