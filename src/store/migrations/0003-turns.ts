import type { Migration } from './migration';

/** Turns that are waited for, and what a run keeps of how it came about. */
export const turns: Migration = {
  name: '0003-turns',
  statements: [
    `CREATE TABLE turns (
      id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites(id) ON DELETE CASCADE,
      deviceId TEXT NOT NULL, deviceName TEXT NOT NULL, reach TEXT NOT NULL, profile TEXT NOT NULL,
      needs JSON NOT NULL, together TEXT, askedBy TEXT, askedAtMs REAL NOT NULL, place INTEGER NOT NULL,
      seenAtMs REAL NOT NULL,
      status TEXT NOT NULL CHECK (status IN ('waiting', 'asked', 'running', 'done', 'refused', 'given-back', 'withdrawn')),
      runId TEXT, endedAtMs REAL)`,
    `CREATE INDEX turns_open ON turns (status) WHERE status IN ('waiting', 'asked', 'running')`,
    `ALTER TABLE runs ADD COLUMN setId TEXT`,
    `ALTER TABLE runs ADD COLUMN askedBy TEXT`,
    `ALTER TABLE runs ADD COLUMN together TEXT`,
    `UPDATE runs SET setId = id`,
    `CREATE INDEX runs_of_set ON runs (setId)`,
    `CREATE INDEX runs_together ON runs (together) WHERE together IS NOT NULL`,
  ],
};
