import type { Migration } from './migration';

/** What the board shows of a run. A run's sign of life is not among it. */
const SHOWN = `siteId, deviceId, setId, lineId, linkKind, reach, profile, status, plan, practice, sameMachine, evidence,
  startedAtMs, downBps, upBps, addedMs, brief`;

/**
 * What each run is evidence of; what its peer signed for, and until when its ticket lasts; corrected plans; since when a
 * peer is pinned; when a line was last looked at for long; which devices have been given a cookie.
 */
export const evidence: Migration = {
  name: '0009-evidence',
  statements: [
    `ALTER TABLE runs ADD COLUMN evidence TEXT NOT NULL DEFAULT 'alone'`,
    `UPDATE runs SET evidence = CASE
       WHEN sameMachine = 1 AND practice = 0 THEN 'voided'
       WHEN together IS NOT NULL THEN 'together'
       WHEN practice = 1 THEN 'practice' ELSE 'alone' END`,
    `ALTER TABLE runs ADD COLUMN receipt JSON`,
    `ALTER TABLE runs ADD COLUMN ticketId TEXT`,
    `ALTER TABLE runs ADD COLUMN untilMs REAL`,
    `UPDATE runs SET untilMs = startedAtMs + 400000 WHERE status = 'running'`,
    `ALTER TABLE runs ADD COLUMN planCorrectedAtMs REAL`,
    // Where a direction is no one figure: its ends.
    `ALTER TABLE runs ADD COLUMN ranges JSON`,
    `ALTER TABLE plans ADD COLUMN correctedAtMs REAL`,
    `ALTER TABLE peers ADD COLUMN pinnedAtMs REAL`,
    `ALTER TABLE lines ADD COLUMN longLookAtMs REAL`,
    `ALTER TABLE lines ADD COLUMN burstMs REAL`,
    // Runs from then on are still to be held against a plan that was corrected.
    `ALTER TABLE lines ADD COLUMN rejudgeFromMs REAL`,
    `CREATE INDEX runs_of_line ON runs (lineId, startedAtMs)`,
    `ALTER TABLE devices ADD COLUMN cookieAtMs REAL`,
    `ALTER TABLE devices ADD COLUMN openUntilMs REAL`,
    // Every device that has measured was given one by the page that did.
    `UPDATE devices SET cookieAtMs = (SELECT MIN(startedAtMs) FROM runs WHERE runs.deviceId = devices.id)`,
    `DROP INDEX runs_for_board`,
    `CREATE INDEX runs_for_board ON runs
       (siteId, status, deviceId, linkKind, reach, startedAtMs, profile, evidence, setId, id)`,
    `DROP INDEX runs_of_set`,
    `CREATE INDEX runs_of_set ON runs (setId, status, id, deviceId, linkKind, reach, lineId, plan, practice,
      evidence, startedAtMs, downBps, upBps, addedMs, brief)`,
    `DROP TRIGGER board_version_update`,
    `CREATE TRIGGER board_version_update AFTER UPDATE OF ${SHOWN} ON runs
       BEGIN UPDATE board_version SET changes = changes + 1; END`,
  ],
};
