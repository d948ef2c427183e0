import type { Migration } from './migration';

/** What the board shows of a run. A run's sign of life is not among it. */
const SHOWN = `siteId, deviceId, setId, lineId, linkKind, reach, profile, status, plan, practice, sameMachine,
  startedAtMs, downBps, upBps, addedMs, brief`;

/**
 * Counts every change of what the board shows of runs, so that what was made of them can be kept until then; and lets
 * the ledger be searched by name without reading the runs themselves, with their long reports.
 */
export const quickLists: Migration = {
  name: '0008-quick-lists',
  statements: [
    `DROP INDEX runs_newest`,
    `CREATE INDEX runs_newest ON runs (siteId, startedAtMs DESC, deviceName, spotName, peerName)`,
    `CREATE TABLE board_version (changes INTEGER NOT NULL)`,
    `INSERT INTO board_version VALUES (0)`,
    ...(['INSERT', 'DELETE', `UPDATE OF ${SHOWN}`] as const).map(
      (event) => `CREATE TRIGGER board_version_${event.slice(0, 6).toLowerCase()} AFTER ${event} ON runs
        BEGIN UPDATE board_version SET changes = changes + 1; END`,
    ),
  ],
};
