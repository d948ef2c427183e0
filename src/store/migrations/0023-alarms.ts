import type { Migration } from './migration';

/** Who is told of what, what happened, and whether it arrived. */
export const alarms: Migration = {
  name: '0023-alarms',
  statements: [
    `CREATE TABLE alarm_rules (siteId TEXT PRIMARY KEY REFERENCES sites (id) ON DELETE CASCADE, rules JSON NOT NULL)`,
    `CREATE TABLE recipients (id TEXT PRIMARY KEY, siteId TEXT REFERENCES sites (id) ON DELETE CASCADE,
       kind TEXT NOT NULL CHECK (kind IN ('mail', 'webhook')), target TEXT NOT NULL, secret TEXT, allowPrivate INTEGER NOT NULL,
       quiet JSON, digest INTEGER NOT NULL, paused INTEGER NOT NULL, byName TEXT NOT NULL, madeAtMs REAL NOT NULL,
       digestAtMs REAL NOT NULL)`,
    `CREATE TABLE alarm_events (id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites (id) ON DELETE CASCADE,
       alarmKey TEXT NOT NULL, alarm JSON NOT NULL, beganAtMs REAL NOT NULL, endedAtMs REAL)`,
    'CREATE UNIQUE INDEX alarm_events_open ON alarm_events (siteId, alarmKey) WHERE endedAtMs IS NULL',
    'CREATE INDEX alarm_events_of_site ON alarm_events (siteId, beganAtMs DESC)',
    `CREATE TABLE deliveries (id TEXT PRIMARY KEY, recipientId TEXT NOT NULL REFERENCES recipients (id) ON DELETE CASCADE,
       eventId TEXT, phase TEXT NOT NULL CHECK (phase IN ('began', 'over', 'digest', 'test')), subject TEXT NOT NULL,
       text TEXT NOT NULL, madeAtMs REAL NOT NULL, nextTryAtMs REAL NOT NULL, tries INTEGER NOT NULL,
       state TEXT NOT NULL CHECK (state IN ('waits', 'sent', 'failed', 'dropped')), trouble TEXT, endedAtMs REAL)`,
    `CREATE INDEX deliveries_open ON deliveries (nextTryAtMs) WHERE state = 'waits'`,
    'CREATE INDEX deliveries_of_recipient ON deliveries (recipientId, madeAtMs DESC)',
  ],
};
