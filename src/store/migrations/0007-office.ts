import type { Migration } from './migration';

/** Several offices and lines, what is known of devices and peers, notes and shared runs; figures made for the board. */
export const office: Migration = {
  name: '0007-office',
  statements: [
    // An office that was removed stands here for a day, with all that is its own.
    `ALTER TABLE sites ADD COLUMN removedAtMs REAL`,
    `CREATE TABLE line_switches (
      id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites(id) ON DELETE CASCADE,
      lineId TEXT NOT NULL REFERENCES lines(id) ON DELETE CASCADE, atMs REAL NOT NULL)`,
    `CREATE INDEX line_switches_by_site ON line_switches (siteId, atMs DESC)`,
    `INSERT INTO line_switches SELECT lower(hex(randomblob(16))), siteId, id, 0 FROM lines`,
    `ALTER TABLE devices ADD COLUMN kind TEXT`,
    `ALTER TABLE devices ADD COLUMN notes TEXT NOT NULL DEFAULT ''`,
    `ALTER TABLE devices ADD COLUMN simulated TINYINT(1) NOT NULL DEFAULT 0`,
    // A device that turned out to be another one is known as that one from then on.
    `CREATE TABLE device_aliases (id TEXT PRIMARY KEY, deviceId TEXT NOT NULL)`,
    `ALTER TABLE peers ADD COLUMN pinned TINYINT(1) NOT NULL DEFAULT 0`,
    `ALTER TABLE peers ADD COLUMN publicKey TEXT`,
    `ALTER TABLE peers ADD COLUMN otherKey TEXT`,
    `ALTER TABLE peers ADD COLUMN farSiteId TEXT`,
    // Lines can be removed too.
    `CREATE TABLE removals_of_all (
      id TEXT PRIMARY KEY, siteId TEXT NOT NULL REFERENCES sites(id) ON DELETE CASCADE,
      kind TEXT NOT NULL CHECK (kind IN ('device', 'peer', 'line')), name TEXT NOT NULL, removed JSON NOT NULL,
      removedAtMs REAL NOT NULL)`,
    `INSERT INTO removals_of_all SELECT id, siteId, kind, name, removed, removedAtMs FROM removals`,
    `DROP TABLE removals`,
    `ALTER TABLE removals_of_all RENAME TO removals`,
    `ALTER TABLE runs ADD COLUMN notes TEXT NOT NULL DEFAULT ''`,
    `ALTER TABLE runs ADD COLUMN shareNumber INTEGER`,
    // What lists need of a report, so that they need not read the whole of it.
    `ALTER TABLE runs ADD COLUMN brief JSON`,
    `UPDATE runs SET brief = json_object(
      'flags', (SELECT json_group_array(json_extract(value, '$.code')) FROM json_each(report, '$.fitness')),
      'downYardstickBps', json_extract(report, '$.down.yardstick.rateBps'),
      'upYardstickBps', json_extract(report, '$.up.yardstick.rateBps'))
     WHERE report IS NOT NULL`,
    `DROP INDEX runs_for_board`,
    `CREATE INDEX runs_for_board ON runs (siteId, status, deviceId, linkKind, reach, startedAtMs, profile, setId, id)`,
    // Holds all that a set is judged by: the runs themselves, with their long reports, need not be read.
    `DROP INDEX runs_of_set`,
    `CREATE INDEX runs_of_set ON runs (setId, status, id, deviceId, linkKind, reach, lineId, plan, practice,
      sameMachine, startedAtMs, downBps, upBps, addedMs, brief)`,
    `CREATE INDEX runs_of_device ON runs (siteId, deviceId, startedAtMs DESC)`,
    `CREATE INDEX runs_by_reach ON runs (siteId, reach, linkKind, startedAtMs DESC)`,
  ],
};
