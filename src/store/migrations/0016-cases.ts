import type { Migration } from './migration';

/** Cases: what a line is to be held to, by which rule, since when. */
export const cases: Migration = {
  name: '0016-cases',
  statements: [
    `CREATE TABLE cases (id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites (id) ON DELETE CASCADE,
       lineId TEXT NOT NULL REFERENCES lines (id) ON DELETE CASCADE, title TEXT NOT NULL, notes TEXT NOT NULL,
       contract JSON NOT NULL, rule JSON NOT NULL, byName TEXT NOT NULL, openedAtMs REAL NOT NULL, closedAtMs REAL)`,
    `CREATE INDEX cases_of_site ON cases (siteId, openedAtMs)`,
  ],
};
