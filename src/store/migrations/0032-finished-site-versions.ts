import { NOTED, SHOWN } from './0013-run-changes';
import type { Migration } from './migration';

/** The office's version is that of the board with which a finished run of it came, changed or went last. */
const notedFor = (
  row: 'NEW' | 'OLD',
  ...finished: readonly ('NEW' | 'OLD')[]
) => `INSERT INTO site_versions (siteId, changes)
  SELECT ${row}.siteId, changes FROM board_version WHERE ${finished.map((each) => `${each}.status = 'finished'`).join(' OR ')}
  ON CONFLICT (siteId) DO UPDATE SET changes = excluded.changes;`;

/** Of a run that begins or breaks off nothing is made: an office is looked at once for each run, when it has ended. */
export const finishedSiteVersions: Migration = {
  name: '0032-finished-site-versions',
  statements: [
    ...['insert', 'update', 'delete'].map((event) => `DROP TRIGGER board_version_${event}`),
    `CREATE TRIGGER board_version_insert AFTER INSERT ON runs WHEN NEW.importId IS NULL
       BEGIN ${NOTED} ${notedFor('NEW', 'NEW')} END`,
    `CREATE TRIGGER board_version_update AFTER UPDATE OF ${SHOWN} ON runs WHEN NEW.importId IS NULL
       BEGIN ${NOTED} ${notedFor('NEW', 'NEW', 'OLD')} END`,
    `CREATE TRIGGER board_version_delete AFTER DELETE ON runs
       BEGIN UPDATE board_version SET changes = changes + 1; ${notedFor('OLD', 'OLD')} END`,
  ],
};
