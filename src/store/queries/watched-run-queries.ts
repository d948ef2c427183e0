import { QueryTypes, type Sequelize } from 'sequelize';

/** A run as it stands beside lanes. */
export interface WatchedRun {
  readonly id: string;
  readonly deviceId: string;
  readonly deviceName: string;
  readonly profile: string;
  readonly atMs: number;
  /** Null: it goes on. */
  readonly endedAtMs: number | null;
  readonly downBps: number | null;
  readonly upBps: number | null;
}

const COLUMNS = 'id, deviceId, deviceName, profile, startedAtMs AS atMs, endedAtMs, downBps, upBps';
const MOST_RUNS = 4000;
const MOST_LONG = 100;
/** The longest run that there is. */
const LONGEST_MS = 10 * 60_000;

/** Runs beside lanes: on the same axis of time. */
export class WatchedRunQueries {
  constructor(private readonly sequelize: Sequelize) {}

  /** Finished runs of these devices that began in a stretch of time, the oldest first. */
  async ofDevices(deviceIds: readonly string[], fromMs: number, untilMs: number): Promise<WatchedRun[]> {
    if (deviceIds.length === 0) return [];
    return this.sequelize.query<WatchedRun>(
      `SELECT ${COLUMNS} FROM runs WHERE deviceId IN (${deviceIds.map(() => '?').join(', ')})
       AND startedAtMs >= ? AND startedAtMs < ? AND status = 'finished' ORDER BY startedAtMs LIMIT ${MOST_RUNS}`,
      { replacements: [...deviceIds, fromMs, untilMs], type: QueryTypes.SELECT },
    );
  }

  /** Runs of an office that take minutes, and what is being measured, that touch a stretch of time; the newest ones, the oldest first. */
  async longOf(siteId: string, fromMs: number, untilMs: number): Promise<WatchedRun[]> {
    const newest = await this.sequelize.query<WatchedRun>(
      `SELECT ${COLUMNS} FROM runs WHERE siteId = ? AND startedAtMs >= ? AND startedAtMs < ?
       AND (status = 'running' OR (profile = 'soak' AND status = 'finished' AND endedAtMs > ?))
       ORDER BY startedAtMs DESC LIMIT ${MOST_LONG}`,
      { replacements: [siteId, fromMs - LONGEST_MS, untilMs, fromMs], type: QueryTypes.SELECT },
    );
    return newest.reverse();
  }
}
