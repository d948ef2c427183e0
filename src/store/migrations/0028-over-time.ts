import type { Migration } from './migration';

/** A line over time is read from here alone: behind the long report of each run its figures lie on pages of their own. */
export const overTime: Migration = {
  name: '0028-over-time',
  statements: [
    `CREATE INDEX runs_over_time ON runs (lineId, reach, siteId, startedAtMs, id, setId, practice, downBps, upBps, idleMs,
       status, json_extract(brief, '$.addedDownMs', '$.addedUpMs', '$.jitterMs', '$.lossShare', '$.downYardstickBps',
         '$.upYardstickBps', '$.downRangeBps', '$.upRangeBps', '$.flagsDown', '$.flagsUp'))
       WHERE status IN ('finished', 'imported') AND evidence IN ('alone', 'practice', 'imported')
         AND profile NOT IN ('delay', 'paced', 'single')`,
  ],
};
