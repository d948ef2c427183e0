import type { Migration } from './migration';

const FIGURES = 'sent INTEGER NOT NULL, answered INTEGER NOT NULL, minMs REAL, medianMs REAL, p95Ms REAL, maxMs REAL';

/** Delay over time: lanes, their minutes, what they come to in hours and days, outages, and marks. */
export const lanes: Migration = {
  name: '0027-lanes',
  statements: [
    `CREATE TABLE lanes (id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites (id) ON DELETE CASCADE,
       deviceId TEXT NOT NULL REFERENCES devices (id) ON DELETE CASCADE, name TEXT NOT NULL, kind TEXT NOT NULL,
       target TEXT NOT NULL, role TEXT NOT NULL, everyMs INTEGER NOT NULL, place INTEGER NOT NULL, madeAtMs REAL NOT NULL,
       removedAtMs REAL, answeredAtMs REAL)`,
    'CREATE INDEX lanes_of_device ON lanes (deviceId)',
    'CREATE INDEX lanes_of_site ON lanes (siteId)',
    `CREATE TABLE lane_minutes (laneId TEXT NOT NULL REFERENCES lanes (id) ON DELETE CASCADE, fromMs INTEGER NOT NULL,
       ${FIGURES}, raw BLOB NOT NULL, PRIMARY KEY (laneId, fromMs)) WITHOUT ROWID`,
    `CREATE TABLE lane_sums (laneId TEXT NOT NULL REFERENCES lanes (id) ON DELETE CASCADE, stepMs INTEGER NOT NULL,
       fromMs INTEGER NOT NULL, ${FIGURES}, PRIMARY KEY (laneId, stepMs, fromMs)) WITHOUT ROWID`,
    `CREATE TABLE lane_outages (id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites (id) ON DELETE CASCADE,
       deviceId TEXT NOT NULL, fromMs REAL NOT NULL, untilMs REAL, fault TEXT NOT NULL, laneIds TEXT NOT NULL,
       air INTEGER NOT NULL DEFAULT 0)`,
    'CREATE INDEX lane_outages_of_site ON lane_outages (siteId, fromMs)',
    `CREATE TABLE marks (id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites (id) ON DELETE CASCADE,
       label TEXT NOT NULL, byName TEXT NOT NULL, fromMs REAL NOT NULL, untilMs REAL)`,
    'CREATE INDEX marks_of_site ON marks (siteId, fromMs)',
  ],
};
