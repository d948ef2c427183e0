import type { Migration } from './migration';

/**
 * What was found in an office and what became of it; what was changed on purpose; hunts with their steps; labels and what
 * those who scanned them said. A run's brief gets what the diagnosis needs of its report.
 */
export const findings: Migration = {
  name: '0011-findings',
  statements: [
    `CREATE TABLE swaps (
      id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites (id) ON DELETE CASCADE, segmentId TEXT NOT NULL,
      what TEXT NOT NULL, note TEXT NOT NULL, deviceId TEXT, atMs REAL NOT NULL, byName TEXT NOT NULL, huntId TEXT,
      undoneAtMs REAL)`,
    `CREATE INDEX swaps_of_site ON swaps (siteId, atMs)`,
    `CREATE TABLE diagnoses (
      siteId TEXT PRIMARY KEY REFERENCES sites (id) ON DELETE CASCADE, madeAtMs REAL NOT NULL, diagnosis JSON NOT NULL)`,
    `CREATE TABLE findings (
      id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites (id) ON DELETE CASCADE, findingKey TEXT NOT NULL,
      state TEXT NOT NULL, reason TEXT NOT NULL, byName TEXT NOT NULL, strength TEXT NOT NULL, openedAtMs REAL NOT NULL,
      changedAtMs REAL NOT NULL, closedAtMs REAL, finding JSON NOT NULL)`,
    `CREATE UNIQUE INDEX findings_by_key ON findings (siteId, findingKey)`,
    `CREATE TABLE hunts (
      id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites (id) ON DELETE CASCADE, kind TEXT NOT NULL,
      title TEXT NOT NULL, focus JSON NOT NULL, state TEXT NOT NULL, openedAtMs REAL NOT NULL, openedBy TEXT NOT NULL,
      closedAtMs REAL, outcome JSON)`,
    `CREATE INDEX hunts_of_site ON hunts (siteId, openedAtMs)`,
    `CREATE TABLE hunt_steps (
      id TEXT PRIMARY KEY, huntId TEXT NOT NULL REFERENCES hunts (id) ON DELETE CASCADE, atMs REAL NOT NULL,
      byName TEXT NOT NULL, kind TEXT NOT NULL, facts JSON NOT NULL)`,
    `CREATE INDEX steps_of_hunt ON hunt_steps (huntId, atMs)`,
    `CREATE TABLE labels (
      id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites (id) ON DELETE CASCADE, spotId TEXT, deviceId TEXT,
      createdAtMs REAL NOT NULL, revokedAtMs REAL)`,
    `CREATE INDEX labels_of_site ON labels (siteId)`,
    `CREATE TABLE complaints (
      id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites (id) ON DELETE CASCADE, deviceId TEXT NOT NULL,
      deviceName TEXT NOT NULL, spotName TEXT, what TEXT NOT NULL, atMs REAL NOT NULL, runIds JSON NOT NULL, huntId TEXT,
      seenAtMs REAL)`,
    `CREATE INDEX complaints_of_site ON complaints (siteId, atMs)`,
    `UPDATE runs SET brief = json_set(brief,
       '$.downLowBps', coalesce(json_extract(report, '$.down.rate.intervalBps.low'), json_extract(report, '$.down.rate.steadyBps')),
       '$.upLowBps', coalesce(json_extract(report, '$.up.rate.intervalBps.low'), json_extract(report, '$.up.rate.steadyBps')),
       '$.addedDownMs', json_extract(report, '$.down.addedMs'),
       '$.addedUpMs', json_extract(report, '$.up.addedMs'))
     WHERE status = 'finished' AND brief IS NOT NULL AND report IS NOT NULL`,
  ],
};
