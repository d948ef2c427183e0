import { QueryTypes, type Sequelize } from 'sequelize';
import { COMPARABLE, type FitnessCode, type Interval, type Reach } from '@/core';
import { OF_RATE } from './of-rate';
import {
  columnsAsTexts,
  columnsOf,
  inParts,
  PART_ROWS,
  pickedFrom,
  type ColumnNames,
  type ColumnTexts,
  type RowPlace,
} from './columns-as-texts';

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
/** The last moment that a date can name. */
const FOR_EVER_MS = 8.64e15;
const OF_PATH = `evidence IN (${COMPARABLE.map((each) => `'${each}'`).join(', ')})`;
const COUNTS = `status IN ('finished', 'imported') AND ${OF_PATH} AND ${OF_RATE}`;
const NAMES: ColumnNames = {
  texts: ['id', 'setId', 'lineId', 'status'],
  numbers: ['startedAtMs', 'practice', 'downBps', 'upBps', 'idleMs'],
  ...{ documents: [], lists: ['brief'] },
};
const PICKED = [
  ...(['addedDownMs', 'addedUpMs', 'jitterMs', 'lossShare', 'downYardstickBps', 'upYardstickBps'] as const),
  ...(['downRangeBps', 'upRangeBps', 'flagsDown', 'flagsUp'] as const),
] as const;

type Figure = number | null;
type Flags = readonly FitnessCode[] | null;
/** What was picked of a brief, in the order of `PICKED`. */
type BriefValues = readonly [
  ...[Figure, Figure, Figure, Figure, Figure, Figure],
  ...[Interval | null, Interval | null, Flags, Flags],
];
const NO_BRIEF: BriefValues = [null, null, null, null, null, null, null, null, null, null];
const NO_FLAGS: readonly FitnessCode[] = [];

/** Plain objects, made of the values as they come: a hundred thousand of them are read at a time. */
function timedRuns(came: ColumnTexts): TimedRun[] {
  const { own, shared } = columnsOf(came);
  const [setIds, lineIds, statuses] = [
    shared<string>('setId'),
    shared<string | null>('lineId'),
    shared<string>('status'),
  ];
  const [startedAtMs, practice] = [own<number>('startedAtMs'), own<number>('practice')];
  const [downs, ups, idles] = [own<Figure>('downBps'), own<Figure>('upBps'), own<Figure>('idleMs')];
  const briefs = own<BriefValues | null>('brief');
  return own<string>('id').map((id, place) => {
    const [addedDown, addedUp, jitter, loss, downYardstick, upYardstick, downRange, upRange, flagsDown, flagsUp] =
      briefs[place] ?? NO_BRIEF;
    return {
      id,
      setId: setIds[place]!,
      startedAtMs: startedAtMs[place]!,
      lineId: lineIds[place]!,
      practice: practice[place] === 1,
      fromFile: statuses[place] === 'imported',
      down: downs[place]!,
      up: ups[place]!,
      idle: idles[place]!,
      addedDown,
      addedUp,
      jitter,
      loss,
      downYardstick,
      upYardstick,
      downIsRange: downRange !== null,
      upIsRange: upRange !== null,
      flagsDown: flagsDown ?? NO_FLAGS,
      flagsUp: flagsUp ?? NO_FLAGS,
    };
  });
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
    const columns = [...NAMES.texts, ...NAMES.numbers, `${pickedFrom('brief', PICKED)} AS brief`];
    // The figures of a line lie in an index of their own; the runs of one device are few.
    const by = 'lineId' in subject ? 'INDEXED BY runs_over_time' : '';
    const select = `SELECT ${columns.join(', ')} FROM runs ${by} WHERE siteId = ? AND ${where} AND ${COUNTS}
       AND (startedAtMs, id) < (?, ?) ORDER BY startedAtMs DESC, id DESC LIMIT ${PART_ROWS}`;
    const sql = columnsAsTexts(NAMES, select);
    const read = async ({ startedAtMs, id }: RowPlace) => {
      const replacements = [siteId, ...values, startedAtMs, id];
      return (await this.sequelize.query<ColumnTexts>(sql, { replacements, type: QueryTypes.SELECT }))[0]!;
    };
    return (await inParts({ startedAtMs: FOR_EVER_MS, id: '' }, read, timedRuns, MOST_TIMED)).reverse();
  }
}
