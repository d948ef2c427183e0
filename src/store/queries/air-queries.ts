import { QueryTypes, type Sequelize } from 'sequelize';
import type { Link } from '@/core';
import { OF_RATE } from './of-rate';

/** A finished run that went through the air. */
export interface StoredAirRun {
  readonly atMs: number;
  readonly deviceId: string;
  readonly deviceName: string;
  readonly spotName: string | null;
  readonly link: Link;
  /** What came down inside, where nothing but the air is in the way; null: it is no evidence of that. */
  readonly insideBps: number | null;
}

const MOST_RUNS = 3000;

/** Runs over Wi-Fi, with the link of each. */
export class AirQueries {
  constructor(private readonly sequelize: Sequelize) {}

  /** Of an office since a moment, the newest first; at most so many as a page can tell of. */
  async runsOf(siteId: string, sinceMs: number): Promise<StoredAirRun[]> {
    const rows = await this.sequelize.query<Omit<StoredAirRun, 'link'> & { readonly link: string }>(
      `SELECT startedAtMs AS atMs, deviceId, deviceName, spotName, link,
         CASE WHEN reach = 'local' AND leftOut IS NULL AND ${OF_RATE} AND evidence IN ('alone', 'practice') THEN downBps END
           AS insideBps
       FROM runs
       WHERE siteId = ? AND startedAtMs >= ? AND status = 'finished' AND linkKind IN ('wifi', 'wifi-2.4', 'wifi-5', 'wifi-6')
       ORDER BY startedAtMs DESC LIMIT ${MOST_RUNS}`,
      { replacements: [siteId, sinceMs], type: QueryTypes.SELECT },
    );
    return rows.map(({ link, ...row }) => ({ ...row, link: JSON.parse(link) as Link }));
  }
}
