import type { Migration } from './migration';

/** What machines were asked to look at, and what they found. */
export const looks: Migration = {
  name: '0026-looks',
  statements: [
    "ALTER TABLE agents ADD COLUMN can TEXT NOT NULL DEFAULT '[]'",
    `CREATE TABLE looks (id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites (id) ON DELETE CASCADE,
       deviceId TEXT NOT NULL, deviceName TEXT NOT NULL, what TEXT NOT NULL, asked TEXT NOT NULL, askedBy TEXT NOT NULL,
       askedAtMs REAL NOT NULL, endedAtMs REAL, outcome TEXT)`,
    'CREATE INDEX looks_by_site ON looks (siteId, askedAtMs DESC)',
    'CREATE INDEX looks_under_way ON looks (deviceId) WHERE endedAtMs IS NULL',
  ],
};
