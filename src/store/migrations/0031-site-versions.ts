import { NOTED, SHOWN } from './0013-run-changes';
import type { Migration } from './migration';

/** The office's version is that of the board with which a run of it changed last. */
const notedFor = (row: 'NEW' | 'OLD') => `INSERT INTO site_versions (siteId, changes)
  VALUES (${row}.siteId, (SELECT changes FROM board_version))
  ON CONFLICT (siteId) DO UPDATE SET changes = excluded.changes;`;
const ALL = `${NOTED} ${notedFor('NEW')}`;

/** Each office knows when a run of it changed: what was made of its runs need not be made anew for those of another one. */
export const siteVersions: Migration = {
  name: '0031-site-versions',
  statements: [
    // Without a reference: runs that go with their office are counted while it goes.
    `CREATE TABLE site_versions (siteId TEXT PRIMARY KEY, changes INTEGER NOT NULL) WITHOUT ROWID`,
    `INSERT INTO site_versions SELECT id, (SELECT changes FROM board_version) FROM sites`,
    ...['insert', 'update', 'delete'].map((event) => `DROP TRIGGER board_version_${event}`),
    `CREATE TRIGGER board_version_insert AFTER INSERT ON runs WHEN NEW.importId IS NULL BEGIN ${ALL} END`,
    `CREATE TRIGGER board_version_update AFTER UPDATE OF ${SHOWN} ON runs WHEN NEW.importId IS NULL BEGIN ${ALL} END`,
    `CREATE TRIGGER board_version_delete AFTER DELETE ON runs
       BEGIN UPDATE board_version SET changes = changes + 1; ${notedFor('OLD')} END`,
  ],
};
