import type { Migration } from './migration';

/** What the board and a diagnosis show of a run. A run's sign of life is not among it. */
export const SHOWN = `siteId, deviceId, setId, lineId, linkKind, reach, profile, status, plan, practice, sameMachine, evidence,
  startedAtMs, downBps, upBps, addedMs, brief`;
/** The board's version grows, and the run knows it. */
export const NOTED = `UPDATE board_version SET changes = changes + 1;
  UPDATE runs SET changed = (SELECT changes FROM board_version) WHERE id = NEW.id;`;

/** Each run knows the version of the board with which it changed last: what was made of the others need not be made anew. */
export const runChanges: Migration = {
  name: '0013-run-changes',
  statements: [
    `ALTER TABLE runs ADD COLUMN changed INTEGER NOT NULL DEFAULT 0`,
    `CREATE INDEX runs_changed ON runs (siteId, changed)`,
    `DROP TRIGGER board_version_insert`,
    `DROP TRIGGER board_version_update`,
    `CREATE TRIGGER board_version_insert AFTER INSERT ON runs BEGIN ${NOTED} END`,
    `CREATE TRIGGER board_version_update AFTER UPDATE OF ${SHOWN} ON runs BEGIN ${NOTED} END`,
  ],
};
