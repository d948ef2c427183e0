import type { Migration } from './migration';

/** Trays of runs that are held side by side; jitter and loss among what lists know of a run. */
export const comparisons: Migration = {
  name: '0015-comparisons',
  statements: [
    `CREATE TABLE comparisons (id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites (id) ON DELETE CASCADE,
       name TEXT NOT NULL, trays JSON NOT NULL, byName TEXT NOT NULL, madeAtMs REAL NOT NULL, shareNumber INTEGER)`,
    `CREATE INDEX comparisons_of_site ON comparisons (siteId, madeAtMs)`,
    `UPDATE runs SET brief = json_set(brief, '$.jitterMs', json_extract(report, '$.idleDelay.jitterMs'),
       '$.lossShare', json_extract(report, '$.loss.lossRatio')) WHERE brief IS NOT NULL AND report IS NOT NULL`,
  ],
};
