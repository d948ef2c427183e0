import type { Migration } from './migration';

/** Sites, lines, plans, spots, devices, peers, runs and their samples. */
export const firstTables: Migration = {
  name: '0001-first-tables',
  statements: [
    `CREATE TABLE sites (id TEXT PRIMARY KEY, name TEXT NOT NULL, joinCode TEXT NOT NULL UNIQUE, demo TINYINT(1) NOT NULL)`,
    `CREATE TABLE lines (
      id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites(id) ON DELETE CASCADE,
      name TEXT NOT NULL, provider TEXT NOT NULL)`,
    `CREATE TABLE plans (
      id TEXT PRIMARY KEY, lineId TEXT NOT NULL REFERENCES lines(id) ON DELETE CASCADE,
      name TEXT NOT NULL, downBps REAL NOT NULL CHECK (downBps > 0), upBps REAL NOT NULL CHECK (upBps > 0),
      leastDownBps REAL, leastUpBps REAL, basis TEXT NOT NULL CHECK (basis IN ('payload', 'line')),
      fullFrom REAL NOT NULL CHECK (fullFrom > 0.5 AND fullFrom <= 1), validFromMs REAL NOT NULL)`,
    `CREATE INDEX plans_by_line ON plans (lineId, validFromMs)`,
    `CREATE TABLE spots (
      id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites(id) ON DELETE CASCADE,
      name TEXT NOT NULL, UNIQUE (siteId, name))`,
    `CREATE TABLE devices (
      id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites(id) ON DELETE CASCADE,
      spotId TEXT REFERENCES spots(id) ON DELETE SET NULL, name TEXT NOT NULL,
      link JSON NOT NULL, UNIQUE (siteId, name))`,
    `CREATE TABLE peers (
      id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites(id) ON DELETE CASCADE,
      name TEXT NOT NULL, reach TEXT NOT NULL, address TEXT NOT NULL, practice TINYINT(1) NOT NULL)`,
    // A run keeps the names and the plan of its day and outlives its device, peer and line: no foreign keys to those.
    `CREATE TABLE runs (
      id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites(id) ON DELETE CASCADE,
      deviceId TEXT NOT NULL, peerId TEXT NOT NULL, lineId TEXT,
      deviceName TEXT NOT NULL, spotName TEXT, peerName TEXT NOT NULL, lineName TEXT,
      reach TEXT NOT NULL, link JSON NOT NULL, linkKind TEXT NOT NULL, plan JSON, profile TEXT NOT NULL,
      practice TINYINT(1) NOT NULL, demo TINYINT(1) NOT NULL,
      status TEXT NOT NULL CHECK (status IN ('running', 'finished', 'unfinished')), reason TEXT,
      startedAtMs REAL NOT NULL, lastSeenAtMs REAL NOT NULL, endedAtMs REAL,
      sameMachine TINYINT(1), ipVersion INTEGER, pageHiddenMs REAL NOT NULL DEFAULT 0,
      peerLinkBps REAL, otherPeerThanUsual TINYINT(1) NOT NULL DEFAULT 0, userAgent TEXT,
      methodVersion INTEGER, verdict TEXT, downBps REAL, upBps REAL, idleMs REAL, addedMs REAL,
      report JSON, sketch JSON,
      CHECK (status <> 'finished' OR report IS NOT NULL),
      CHECK (status <> 'unfinished' OR (reason IS NOT NULL AND downBps IS NULL AND upBps IS NULL)))`,
    `CREATE INDEX runs_newest ON runs (siteId, startedAtMs DESC)`,
    `CREATE INDEX runs_for_board ON runs (siteId, status, deviceId, linkKind, reach, startedAtMs DESC)`,
    `CREATE INDEX runs_running ON runs (status) WHERE status = 'running'`,
    `CREATE TABLE run_samples (
      runId TEXT PRIMARY KEY REFERENCES runs(id) ON DELETE CASCADE, samples BLOB NOT NULL)`,
  ],
};
