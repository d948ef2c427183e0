import type { Migration } from './migration';

/** What a way gave in a week is read from this index alone, for all offices at once. */
export const quickWeeks: Migration = {
  name: '0024-quick-weeks',
  statements: [
    `CREATE INDEX runs_of_week ON runs (siteId, reach, startedAtMs, downBps, upBps, addedMs, id) WHERE status = 'finished'
       AND profile NOT IN ('delay', 'paced', 'single') AND evidence IN ('alone', 'practice')`,
  ],
};
