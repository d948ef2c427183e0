import { OF_RATE } from './of-rate';

/**
 * All finished runs of the newest set of each device, kind of link and reach of `:siteId`, as SQL: of the newest set that is evidence of
 * its path; where there is none, of the newest that is void. Goes from place to place in the index `runs_for_board`: of millions of runs
 * as many are looked at as there are places.
 */
export function newestSetsSql(columns: readonly string[]): string {
  const next = (column: string, more: string) =>
    `(SELECT MIN(${column}) FROM runs WHERE siteId = :siteId AND status = 'finished' ${more})`;
  const newest = (evidence: string) =>
    `(SELECT setId FROM runs WHERE siteId = :siteId AND status = 'finished' AND deviceId = d AND linkKind = k AND reach = r
       AND ${OF_RATE} AND evidence ${evidence} ORDER BY startedAtMs DESC, rowid DESC LIMIT 1)`;
  return `WITH RECURSIVE
         devices_of(d) AS (SELECT ${next('deviceId', '')}
           UNION ALL SELECT ${next('deviceId', 'AND deviceId > d')} FROM devices_of WHERE d IS NOT NULL),
         kinds(d, k) AS (SELECT d, ${next('linkKind', 'AND deviceId = d')} FROM devices_of WHERE d IS NOT NULL
           UNION ALL SELECT d, ${next('linkKind', 'AND deviceId = d AND linkKind > k')} FROM kinds WHERE k IS NOT NULL),
         places(d, k, r) AS (SELECT d, k, ${next('reach', 'AND deviceId = d AND linkKind = k')} FROM kinds WHERE k IS NOT NULL
           UNION ALL SELECT d, k, ${next('reach', 'AND deviceId = d AND linkKind = k AND reach > r')}
           FROM places WHERE r IS NOT NULL),
         newest(newestSetId) AS (SELECT coalesce(${newest(`NOT IN ('together', 'voided')`)}, ${newest(`= 'voided'`)})
           FROM places WHERE r IS NOT NULL)
       SELECT ${columns.map((name) => `runs."${name}"`).join(', ')} FROM newest JOIN runs ON runs.setId = newestSetId
       WHERE runs.status = 'finished'`;
}
