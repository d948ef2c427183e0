import type { Migration } from './migration';

/** Cases: what a line is to be held to, by which rule, since when. A line that is removed may be put back: its cases stay. */
export const cases: Migration = {
  name: '0016-cases',
  statements: [
    `CREATE TABLE cases (id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites (id) ON DELETE CASCADE,
       lineId TEXT NOT NULL, title TEXT NOT NULL, notes TEXT NOT NULL,
       contract JSON NOT NULL, rule JSON NOT NULL, byName TEXT NOT NULL, openedAtMs REAL NOT NULL, closedAtMs REAL,
       deviceId TEXT, askedAtMs REAL)`,
    `CREATE INDEX cases_of_site ON cases (siteId, openedAtMs)`,
  ],
};
