import type { Migration } from './migration';

/** Two things that are measured turn and turn about, until there is enough to hold them side by side. */
export const alternations: Migration = {
  name: '0020-alternations',
  statements: [
    `CREATE TABLE alternations (id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites (id) ON DELETE CASCADE,
       sides JSON NOT NULL, byHand INTEGER NOT NULL, reach TEXT NOT NULL, profile TEXT NOT NULL, times INTEGER NOT NULL,
       runs JSON NOT NULL, readyFor INTEGER, turnId TEXT, state TEXT NOT NULL CHECK (state IN ('going', 'held', 'done', 'stopped')),
       why TEXT, byName TEXT NOT NULL, madeAtMs REAL NOT NULL, comparisonId TEXT)`,
    `CREATE INDEX alternations_of_site ON alternations (siteId, madeAtMs DESC)`,
  ],
};
