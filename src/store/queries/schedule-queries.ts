import { QueryTypes, type Sequelize } from 'sequelize';
import type { PeerReach, Schedule, ScheduledFor, MissedWhy } from '@/core';

/** When whom is to measure what. */
export interface StoredSchedule {
  readonly id: string;
  readonly siteId: string;
  readonly who: ScheduledFor;
  readonly schedule: Schedule;
  /** Each time begins at most so much later, so that not all begin at once. */
  readonly spreadMinutes: number;
  readonly paused: boolean;
  readonly byName: string;
  readonly madeAtMs: number;
  /** Times until then are written down. */
  readonly doneUntilMs: number;
}

/** One time of a schedule: what became of it. */
export interface ScheduledTime {
  readonly id: string;
  readonly scheduleId: string;
  readonly siteId: string;
  readonly deviceId: string;
  readonly reach: PeerReach;
  readonly dueAtMs: number;
  readonly beginAtMs: number;
  readonly state: 'waits' | 'asked' | 'made' | 'missed';
  readonly why: MissedWhy | null;
  readonly turnId: string | null;
  readonly runId: string | null;
}

type Row = Omit<StoredSchedule, 'who' | 'schedule' | 'paused'> & {
  readonly who: string;
  readonly schedule: string;
  readonly paused: number;
};
const COLUMNS = [
  ...(['id', 'siteId', 'who', 'schedule', 'spreadMinutes', 'paused', 'byName', 'madeAtMs', 'doneUntilMs'] as const),
] as const;
const TIME_COLUMNS = [
  ...(['id', 'scheduleId', 'siteId', 'deviceId', 'reach', 'dueAtMs', 'beginAtMs', 'state', 'why', 'turnId'] as const),
  'runId',
] as const;
const places = (columns: readonly string[]) => columns.map(() => '?').join(', ');

const readRow = (row: Row): StoredSchedule => ({
  ...row,
  who: JSON.parse(row.who) as ScheduledFor,
  schedule: JSON.parse(row.schedule) as Schedule,
  paused: row.paused === 1,
});

export class ScheduleQueries {
  constructor(private readonly sequelize: Sequelize) {}

  async byId(id: string): Promise<StoredSchedule | null> {
    return (await this.#select('id = ?', [id]))[0] ?? null;
  }

  ofSite(siteId: string): Promise<StoredSchedule[]> {
    return this.#select('siteId = ?', [siteId]);
  }

  /** Those that are kept now. */
  going(): Promise<StoredSchedule[]> {
    return this.#select('paused = 0', []);
  }

  async save(schedule: StoredSchedule): Promise<void> {
    const { who, schedule: of, paused } = schedule;
    const row = { ...schedule, who: JSON.stringify(who), schedule: JSON.stringify(of), paused: paused ? 1 : 0 };
    // Not "or replace": that would take its times with it.
    await this.sequelize.query(
      `INSERT INTO schedules (${COLUMNS.join(', ')}) VALUES (${places(COLUMNS)})
       ON CONFLICT (id) DO UPDATE SET ${COLUMNS.slice(1)
         .map((name) => `${name} = excluded.${name}`)
         .join(', ')}`,
      { replacements: COLUMNS.map((name) => row[name]) },
    );
  }

  async remove(id: string): Promise<void> {
    await this.sequelize.query('DELETE FROM schedules WHERE id = ?', { replacements: [id] });
  }

  /** Writes times down, once each, and that all until a moment are. */
  async addTimes(scheduleId: string, times: readonly ScheduledTime[], doneUntilMs: number): Promise<void> {
    await this.sequelize.transaction(async (transaction) => {
      for (const time of times)
        await this.sequelize.query(
          `INSERT OR IGNORE INTO scheduled_times (${TIME_COLUMNS.join(', ')}) VALUES (${places(TIME_COLUMNS)})`,
          { replacements: TIME_COLUMNS.map((name) => time[name]), transaction },
        );
      await this.sequelize.query('UPDATE schedules SET doneUntilMs = ? WHERE id = ?', {
        replacements: [doneUntilMs, scheduleId],
        transaction,
      });
    });
  }

  /** Times that are still to be made and should have begun, the earliest first. */
  async open(untilMs: number): Promise<ScheduledTime[]> {
    return this.sequelize.query<ScheduledTime>(
      `SELECT * FROM scheduled_times WHERE state IN ('waits', 'asked') AND beginAtMs <= ? ORDER BY beginAtMs`,
      { replacements: [untilMs], type: QueryTypes.SELECT },
    );
  }

  /** Times of one schedule that are still to be made. */
  async openOf(scheduleId: string): Promise<ScheduledTime[]> {
    return this.sequelize.query<ScheduledTime>(
      `SELECT * FROM scheduled_times WHERE scheduleId = ? AND state IN ('waits', 'asked') ORDER BY beginAtMs`,
      { replacements: [scheduleId], type: QueryTypes.SELECT },
    );
  }

  async settle(
    id: string,
    { state, why = null, turnId = null, runId = null }: Pick<ScheduledTime, 'state'> & Partial<ScheduledTime>,
  ): Promise<void> {
    await this.sequelize.query(
      `UPDATE scheduled_times SET state = ?, why = ?, turnId = coalesce(?, turnId), runId = coalesce(?, runId) WHERE id = ?`,
      { replacements: [state, why, turnId, runId, id] },
    );
  }

  /** The times of an office in a span, the newest first. */
  async timesOf(siteId: string, fromMs: number, untilMs: number): Promise<ScheduledTime[]> {
    return this.sequelize.query<ScheduledTime>(
      'SELECT * FROM scheduled_times WHERE siteId = ? AND dueAtMs >= ? AND dueAtMs < ? ORDER BY dueAtMs DESC',
      { replacements: [siteId, fromMs, untilMs], type: QueryTypes.SELECT },
    );
  }

  async forgetBefore(dueAtMs: number): Promise<void> {
    await this.sequelize.query('DELETE FROM scheduled_times WHERE dueAtMs < ?', { replacements: [dueAtMs] });
  }

  /** What runs over a line have moved since a moment, bytes. */
  async movedOverLine(lineId: string, sinceMs: number): Promise<number> {
    const [row] = await this.sequelize.query<{ moved: number | null }>(
      'SELECT SUM(movedBytes) AS moved FROM runs WHERE lineId = ? AND startedAtMs >= ? AND movedBytes IS NOT NULL',
      { replacements: [lineId, sinceMs], type: QueryTypes.SELECT },
    );
    return row?.moved ?? 0;
  }

  /** What the newest runs of a device, reach and profile have moved, bytes. */
  async movedLately(deviceId: string, reach: PeerReach, profile: string): Promise<number[]> {
    const rows = await this.sequelize.query<{ moved: number }>(
      `SELECT movedBytes AS moved FROM runs WHERE deviceId = ? AND reach = ? AND profile = ? AND movedBytes > 0
       ORDER BY startedAtMs DESC LIMIT 20`,
      { replacements: [deviceId, reach, profile], type: QueryTypes.SELECT },
    );
    return rows.map(({ moved }) => moved);
  }

  /** The finished runs of a device since a moment, the oldest first. */
  async startsOf(
    deviceId: string,
    sinceMs: number,
  ): Promise<readonly { readonly id: string; readonly startedAtMs: number; readonly reach: PeerReach }[]> {
    return this.sequelize.query(
      `SELECT id, startedAtMs, reach FROM runs WHERE deviceId = ? AND startedAtMs >= ? AND status = 'finished'
       ORDER BY startedAtMs`,
      { replacements: [deviceId, sinceMs], type: QueryTypes.SELECT },
    );
  }

  async #select(where: string, values: readonly string[]): Promise<StoredSchedule[]> {
    const rows = await this.sequelize.query<Row>(`SELECT * FROM schedules WHERE ${where} ORDER BY madeAtMs, id`, {
      replacements: [...values],
      type: QueryTypes.SELECT,
    });
    return rows.map(readRow);
  }
}
