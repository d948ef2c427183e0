import type { Migration } from './migration';

/**
 * The figures of a line over time, and of what stands out in an office, are read from here: in the table some of them lie
 * behind the long report of each run, on pages of their own.
 */
export const overTime: Migration = {
  name: '0028-over-time',
  statements: [
    `CREATE INDEX runs_over_time ON runs (lineId, reach, siteId, startedAtMs, id, setId, practice, downBps, upBps, idleMs,
       status, json_extract(brief, '$.addedDownMs', '$.addedUpMs', '$.jitterMs', '$.lossShare', '$.downYardstickBps',
         '$.upYardstickBps', '$.downRangeBps', '$.upRangeBps', '$.flagsDown', '$.flagsUp'))
       WHERE status IN ('finished', 'imported') AND evidence IN ('alone', 'practice', 'imported')
         AND profile NOT IN ('delay', 'paced', 'single')`,
    `CREATE INDEX runs_whole_evidence ON runs (siteId, startedAtMs, id, setId, deviceId, linkKind, reach, lineId, peerId,
       downBps, upBps, ipVersion, link, practice, peerLinkBps,
       json_extract(brief, '$.flags', '$.downLowBps', '$.upLowBps', '$.addedDownMs', '$.addedUpMs', '$.resentShare'))
       WHERE status = 'finished' AND profile NOT IN ('delay', 'paced', 'single') AND evidence IN ('alone', 'practice')`,
  ],
};
