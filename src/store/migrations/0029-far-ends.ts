import type { Migration } from './migration';

/** A far end may be a web server of somebody else's; a run keeps what it was. */
export const farEnds: Migration = {
  name: '0029-far-ends',
  statements: [
    'ALTER TABLE peers ADD COLUMN web JSON',
    "ALTER TABLE runs ADD COLUMN farEnd VARCHAR(255) NOT NULL DEFAULT 'peer'",
    // What somebody else's server gave says nothing of how a line does in a week.
    'DROP INDEX runs_of_week',
    `CREATE INDEX runs_of_week ON runs (siteId, reach, startedAtMs, downBps, upBps, addedMs, id) WHERE status = 'finished'
       AND profile NOT IN ('delay', 'paced', 'single') AND evidence IN ('alone', 'practice') AND farEnd <> 'web'`,
  ],
};
