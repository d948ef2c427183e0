import { QueryTypes, type Sequelize } from 'sequelize';
import { COMPARABLE, type FitnessCode, type Reach, type RunBrief } from '@/core';
import { OF_RATE } from './of-rate';
import { fromOne, pickedFrom, rowsAsOne, type Picked } from './rows-as-one';
import type { StoredRun } from './run-queries';

/** Whose runs are looked at over time: all over a line, or those of a device over one link as far as one reach. */
export type TimeSubject =
  | { readonly lineId: string }
  | { readonly deviceId: string; readonly linkKind: string; readonly reach: Reach };

/** A subject that has runs, with how many and the newest. */
export interface TimedSubject {
  readonly deviceId: string;
  readonly deviceName: string;
  readonly linkKind: string;
  readonly reach: Reach;
  readonly occasions: number;
  readonly newestMs: number;
}

/** A run as far as time shows something of it. Rates bits per second, delays ms, loss a share; null: not measured. */
export interface TimedRun {
  readonly id: string;
  readonly setId: string;
  readonly startedAtMs: number;
  readonly lineId: string | null;
  readonly practice: boolean;
  /** Brought in from a file, measured by something else. */
  readonly fromFile: boolean;
  readonly down: number | null;
  readonly up: number | null;
  readonly idle: number | null;
  readonly addedDown: number | null;
  readonly addedUp: number | null;
  readonly jitter: number | null;
  readonly loss: number | null;
  /** What it was held against, bits per second. */
  readonly downYardstick: number | null;
  readonly upYardstick: number | null;
  /** Where a direction was no one figure. */
  readonly downIsRange: boolean;
  readonly upIsRange: boolean;
  readonly flagsDown: readonly FitnessCode[];
  readonly flagsUp: readonly FitnessCode[];
}

/** Newer ones are taken first. */
export const MOST_TIMED = 200_000;
const OF_PATH = `evidence IN (${COMPARABLE.map((each) => `'${each}'`).join(', ')})`;
const COUNTS = `status IN ('finished', 'imported') AND ${OF_PATH} AND ${OF_RATE}`;
const COLUMNS = [
  ...(['id', 'setId', 'startedAtMs', 'lineId', 'practice', 'downBps', 'upBps', 'idleMs', 'status', 'brief'] as const),
] as const;
const PICKED = {
  brief: [
    ...(['addedDownMs', 'addedUpMs', 'jitterMs', 'lossShare', 'downYardstickBps', 'upYardstickBps'] as const),
    ...(['downRangeBps', 'upRangeBps', 'flagsDown', 'flagsUp'] as const),
  ],
} as const satisfies Picked;
type Row = Omit<Pick<StoredRun, (typeof COLUMNS)[number]>, 'brief'> & {
  readonly brief: Pick<RunBrief, (typeof PICKED.brief)[number]> | null;
};

/** One plain object: a hundred thousand of them are read at a time. */
function timedRun(row: Row): TimedRun {
  const { brief } = row;
  return {
    id: row.id,
    setId: row.setId,
    startedAtMs: row.startedAtMs,
    lineId: row.lineId,
    practice: row.practice,
    fromFile: row.status === 'imported',
    down: row.downBps,
    up: row.upBps,
    idle: row.idleMs,
    addedDown: brief?.addedDownMs ?? null,
    addedUp: brief?.addedUpMs ?? null,
    jitter: brief?.jitterMs ?? null,
    loss: brief?.lossShare ?? null,
    downYardstick: brief?.downYardstickBps ?? null,
    upYardstick: brief?.upYardstickBps ?? null,
    downIsRange: (brief?.downRangeBps ?? null) !== null,
    upIsRange: (brief?.upRangeBps ?? null) !== null,
    flagsDown: brief?.flagsDown ?? [],
    flagsUp: brief?.flagsUp ?? [],
  };
}

/** Which runs are those of a subject, as SQL and its values. */
function placeOf(subject: TimeSubject): [string, string[]] {
  return 'lineId' in subject
    ? [`lineId = ? AND reach = 'internet'`, [subject.lineId]]
    : ['deviceId = ? AND linkKind = ? AND reach = ?', [subject.deviceId, subject.linkKind, subject.reach]];
}

/** Runs as a course of time. */
export class TimeQueries {
  constructor(private readonly sequelize: Sequelize) {}

  /** Devices with a link and a reach over which they were measured, those with the most occasions first. */
  async subjects(siteId: string): Promise<TimedSubject[]> {
    return this.sequelize.query<TimedSubject>(
      `SELECT deviceId, linkKind, reach, COUNT(DISTINCT setId) AS occasions, MAX(startedAtMs) AS newestMs,
         (SELECT name FROM devices WHERE devices.id = runs.deviceId) AS deviceName
       FROM runs WHERE siteId = ? AND ${COUNTS} AND deviceId IN (SELECT id FROM devices)
       GROUP BY deviceId, linkKind, reach ORDER BY occasions DESC, newestMs DESC`,
      { replacements: [siteId], type: QueryTypes.SELECT },
    );
  }

  /** Runs of a subject with one connection since a moment. Bits per second; null: not measured. */
  async singles(
    siteId: string,
    subject: TimeSubject,
    sinceMs: number,
  ): Promise<readonly { readonly down: number | null; readonly up: number | null }[]> {
    const [where, values] = placeOf(subject);
    return this.sequelize.query<{ down: number | null; up: number | null }>(
      `SELECT downBps AS down, upBps AS up FROM runs WHERE siteId = ? AND ${where} AND status = 'finished' AND ${OF_PATH}
         AND profile = 'single' AND startedAtMs >= ?`,
      { replacements: [siteId, ...values, sinceMs], type: QueryTypes.SELECT },
    );
  }

  /** The runs of a subject that are evidence of their path, the oldest first. */
  async runs(siteId: string, subject: TimeSubject): Promise<TimedRun[]> {
    const [where, values] = placeOf(subject);
    const columns = COLUMNS.map((name) => (name === 'brief' ? `${pickedFrom(name, PICKED.brief)} AS brief` : name));
    // All of a line lies in an index of its own; the runs of one device are few.
    const by = 'lineId' in subject ? 'INDEXED BY runs_over_time' : '';
    const [found] = await this.sequelize.query<{ found: string }>(
      `SELECT ${rowsAsOne(COLUMNS, false)} AS found FROM (SELECT ${columns.join(', ')} FROM runs ${by}
         WHERE siteId = ? AND ${where} AND ${COUNTS} ORDER BY startedAtMs DESC LIMIT ?)`,
      { replacements: [siteId, ...values, MOST_TIMED], type: QueryTypes.SELECT },
    );
    return fromOne<Row>(COLUMNS, found!.found, PICKED)
      .sort((a, b) => a.startedAtMs - b.startedAtMs)
      .map(timedRun);
  }
}
