import type { Migration } from './migration';

/** How long samples stay, and which runs have none any more. */
export const keeping: Migration = {
  name: '0017-keeping',
  statements: [
    `CREATE TABLE settings (name TEXT PRIMARY KEY, value JSON NOT NULL) WITHOUT ROWID`,
    `ALTER TABLE runs ADD COLUMN thinnedAtMs REAL`,
    `CREATE INDEX runs_with_samples ON runs (startedAtMs) WHERE thinnedAtMs IS NULL`,
  ],
};
