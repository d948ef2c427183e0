import type { Migration } from './migration';

/** Machines that stand by without a person, what changed of their links, when they are to measure, and what runs moved. */
export const agents: Migration = {
  name: '0022-agents',
  statements: [
    `CREATE TABLE agents (deviceId TEXT PRIMARY KEY REFERENCES devices (id) ON DELETE CASCADE, siteId TEXT NOT NULL,
       version TEXT NOT NULL, protocol INTEGER NOT NULL, facts JSON NOT NULL, clockOffsetMs REAL NOT NULL,
       outbox INTEGER NOT NULL, joinedAtMs REAL NOT NULL, seenAtMs REAL NOT NULL)`,
    'CREATE INDEX agents_of_site ON agents (siteId)',
    `CREATE TABLE link_changes (id TEXT PRIMARY KEY, deviceId TEXT NOT NULL REFERENCES devices (id) ON DELETE CASCADE,
       siteId TEXT NOT NULL, atMs REAL NOT NULL, link TEXT NOT NULL, fact TEXT NOT NULL, before TEXT NOT NULL,
       after TEXT NOT NULL, seenAtMs REAL)`,
    'CREATE INDEX link_changes_of_site ON link_changes (siteId, atMs DESC)',
    `CREATE TABLE schedules (id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites (id) ON DELETE CASCADE,
       who JSON NOT NULL, schedule JSON NOT NULL, spreadMinutes REAL NOT NULL, paused INTEGER NOT NULL,
       byName TEXT NOT NULL, madeAtMs REAL NOT NULL, doneUntilMs REAL NOT NULL)`,
    'CREATE INDEX schedules_of_site ON schedules (siteId)',
    `CREATE TABLE scheduled_times (id TEXT PRIMARY KEY, scheduleId TEXT NOT NULL REFERENCES schedules (id) ON DELETE CASCADE,
       siteId TEXT NOT NULL, deviceId TEXT NOT NULL, reach TEXT NOT NULL, dueAtMs REAL NOT NULL, beginAtMs REAL NOT NULL,
       state TEXT NOT NULL CHECK (state IN ('waits', 'asked', 'made', 'missed')), why TEXT, turnId TEXT, runId TEXT,
       UNIQUE (scheduleId, deviceId, reach, dueAtMs))`,
    `CREATE INDEX scheduled_times_open ON scheduled_times (beginAtMs) WHERE state IN ('waits', 'asked')`,
    'CREATE INDEX scheduled_times_of_schedule ON scheduled_times (scheduleId, dueAtMs DESC)',
    'ALTER TABLE runs ADD COLUMN movedBytes REAL',
    'CREATE INDEX runs_moved ON runs (lineId, startedAtMs) WHERE movedBytes IS NOT NULL',
    'ALTER TABLE lines ADD COLUMN budgetBytes REAL',
  ],
};
