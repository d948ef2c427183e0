import { Op, QueryTypes, type Attributes, type Sequelize, type WhereOptions } from 'sequelize';
import { groupedBy, NOT_OF_RATE, OF_ITS_PATH, type Reach, type RunSamples } from '@/core';
import type { RunRow } from '../models/rows';
import type { Tables } from '../models/tables';
import { readReport } from '../readers/report-reader';
import { newestSetsSql } from './newest-sets';
import { OF_PATH, OF_RATE } from './of-rate';
import { fromOne, rowsAsOne } from './rows-as-one';
import { packSamples, unpackSamples } from '../samples-blob';

export type StoredRun = Attributes<RunRow>;
/** A run without its long columns, for lists. */
export type RunLine = Omit<StoredRun, 'report' | 'brief' | 'receipt'>;
/** A finished run as far as its set is judged by it. */
export type SetRun = Pick<StoredRun, (typeof SET_COLUMNS)[number]>;

const SET_COLUMNS = [
  ...(['id', 'setId', 'deviceId', 'linkKind', 'reach', 'lineId', 'plan', 'practice', 'evidence'] as const),
  ...(['startedAtMs', 'downBps', 'upBps', 'addedMs', 'brief'] as const),
] as const;

/** Columns that lists do not need. */
const LONG_COLUMNS = ['report', 'brief', 'receipt'] as const;

/** What was removed is kept for a day, so that it can be put back, and is nowhere to be seen. */
const KEPT = { status: { [Op.ne]: 'removed' } } as const;
/** Values that are bound in one statement, at most. */
const MOST_BOUND = 500;
/** Rows that are written with one statement. */
const BATCH = 20;

/** How a running run ends. */
export type RunEnding = Pick<StoredRun, 'status' | 'reason' | 'endedAtMs'> & Partial<StoredRun>;

/** Figures of many runs, each only as far as it was measured. */
export interface FiguresSince {
  readonly count: number;
  readonly downBps: readonly number[];
  readonly upBps: readonly number[];
  readonly addedMs: readonly number[];
  readonly newest: { readonly runId: string; readonly startedAtMs: number } | null;
}

/** A run with its report in the shape of today, whatever version of the method wrote it. */
function wholeRun(row: RunRow): StoredRun {
  const run = row.get({ plain: true });
  return { ...run, report: readReport(run.report) };
}

export class RunQueries {
  constructor(
    private readonly sequelize: Sequelize,
    private readonly tables: Tables,
  ) {}

  /** One that was removed is not there, whoever has its id or a link to it. */
  async byId(id: string): Promise<StoredRun | null> {
    const row = await this.tables.runs.findOne({ where: { id, ...KEPT } });
    return row === null ? null : wholeRun(row);
  }

  async insert(run: StoredRun): Promise<void> {
    await this.tables.runs.create(run);
  }

  /** Takes in runs that have ended already, with their samples, all in one transaction. */
  async takeIn(ended: readonly { readonly run: StoredRun; readonly samples: RunSamples | null }[]): Promise<void> {
    const blobs = await Promise.all(
      ended.flatMap(({ run, samples }) =>
        samples === null ? [] : [packSamples(samples).then((blob) => ({ runId: run.id, samples: blob }))],
      ),
    );
    await this.sequelize.transaction(async (transaction) => {
      for (let from = 0; from < ended.length; from += BATCH) {
        const runs = ended.slice(from, from + BATCH).map(({ run }) => run);
        await this.tables.runs.bulkCreate(runs, { transaction });
      }
      for (let from = 0; from < blobs.length; from += BATCH)
        await this.tables.runSamples.bulkCreate(blobs.slice(from, from + BATCH), { transaction });
    });
  }

  async running(): Promise<StoredRun[]> {
    const rows = await this.tables.runs.findAll({ where: { status: 'running' }, order: ['startedAtMs'] });
    return rows.map(wholeRun);
  }

  async seen(id: string, atMs: number): Promise<boolean> {
    const [count] = await this.tables.runs.update({ lastSeenAtMs: atMs }, { where: { id, status: 'running' } });
    return count === 1;
  }

  /**
   * Ends a run and keeps its samples, in one transaction. True when this call ended it; false when its record stands
   * already. A record that only says that the device vanished gives way to what the device hands in later.
   */
  async end(id: string, ending: RunEnding, samples: RunSamples | null): Promise<boolean> {
    const blob = samples === null ? null : await packSamples(samples);
    return this.sequelize.transaction(async (transaction) => {
      const open: WhereOptions<RunRow> = {
        id,
        [Op.or]: [
          { status: 'running' },
          { status: 'unfinished', reason: { [Op.in]: ['device-vanished', 'tab-closed'] } },
        ],
      };
      const [count] = await this.tables.runs.update(ending, { where: open, transaction });
      if (count === 0) return false;
      if (blob !== null) await this.tables.runSamples.upsert({ runId: id, samples: blob }, { transaction });
      return true;
    });
  }

  async samples(id: string): Promise<RunSamples | null> {
    const row = await this.tables.runSamples.findByPk(id);
    return row === null ? null : unpackSamples(row.samples);
  }

  /** Finished runs whose figures were made by another version of the method, or all of them; the oldest first. */
  async finishedByOtherMethod(methodVersion: number, all: boolean): Promise<StoredRun[]> {
    const other = all ? {} : { methodVersion: { [Op.ne]: methodVersion } };
    const rows = await this.tables.runs.findAll({
      where: { status: 'finished', ...other },
      order: [['startedAtMs', 'ASC']],
    });
    return rows.map(wholeRun);
  }

  /** Runs over a line from a time on that have ended, the oldest first. */
  async ofLineFrom(lineId: string, fromMs: number, limit: number): Promise<StoredRun[]> {
    const rows = await this.tables.runs.findAll({
      where: { lineId, startedAtMs: { [Op.gte]: fromMs }, status: { [Op.ne]: 'running' } },
      order: [['startedAtMs', 'ASC']],
      limit,
    });
    return rows.map(wholeRun);
  }

  /** What a run that has no samples is held against from now on. */
  async replacePlan(id: string, changed: Pick<StoredRun, 'plan' | 'planCorrectedAtMs'>): Promise<void> {
    await this.tables.runs.update(changed, { where: { id } });
  }

  async countFinished(): Promise<number> {
    return this.tables.runs.count({ where: { status: 'finished' } });
  }

  /** Runs of some offices over their lines that ended since a moment and of which it is not known who else used the line. */
  async withoutLineUse(siteIds: readonly string[], sinceMs: number): Promise<StoredRun[]> {
    const rows = await this.tables.runs.findAll({
      where: {
        ...{
          siteId: { [Op.in]: [...siteIds] },
          startedAtMs: { [Op.gte]: sinceMs },
          status: 'finished',
          practice: false,
        },
        ...{ lineId: { [Op.ne]: null }, importId: null, lineUse: null },
      },
    });
    return rows.map(wholeRun);
  }

  /** Writes the figures of a finished run anew; its samples and conditions stay. */
  async replaceFigures(id: string, figures: Partial<StoredRun>): Promise<void> {
    await this.tables.runs.update(figures, { where: { id, status: 'finished' } });
  }

  /** The lines of runs by their ids. */
  async lines(ids: readonly string[]): Promise<ReadonlyMap<string, RunLine>> {
    const rows = await this.tables.runs.findAll({
      where: { id: { [Op.in]: [...ids] } },
      attributes: { exclude: [...LONG_COLUMNS] },
    });
    return new Map(rows.map((row) => [row.get('id'), row.get({ plain: true })]));
  }

  /**
   * For each device, kind of link and reach of a site: all finished runs of the newest set that is evidence of its path,
   * the oldest first; where there is none, of the newest that is void. Runs that measured only delay, or that shared
   * their line on purpose, have no place there.
   */
  async newestSets(siteId: string): Promise<SetRun[]> {
    return this.#setRuns(newestSetsSql(SET_COLUMNS), { siteId });
  }

  /** Grows whenever something changes in what the board of an office shows of its runs; null: it never had one. */
  async siteVersion(siteId: string): Promise<number | null> {
    return (await this.siteVersions(siteId)).get(siteId) ?? null;
  }

  /** The same of all offices, by their ids; or of one. */
  async siteVersions(only: string | null = null): Promise<ReadonlyMap<string, number>> {
    const rows = await this.sequelize.query<{ siteId: string; changes: number }>(
      `SELECT siteId, changes FROM site_versions ${only === null ? '' : 'WHERE siteId = :only'}`,
      { replacements: { only }, type: QueryTypes.SELECT },
    );
    return new Map(rows.map(({ siteId, changes }) => [siteId, changes]));
  }

  /** Grows whenever something changes in what any board shows of runs. */
  async boardVersion(): Promise<number> {
    const [row] = await this.sequelize.query<{ changes: number }>('SELECT changes FROM board_version', {
      type: QueryTypes.SELECT,
    });
    return row!.changes;
  }

  /** The oldest first: they lie nearly so, and are put in order sooner here than there. */
  async #setRuns(select: string, replacements: Record<string, unknown>): Promise<SetRun[]> {
    const [found] = await this.sequelize.query<{ found: string }>(
      `SELECT ${rowsAsOne(SET_COLUMNS, null)} AS found FROM (${select})`,
      { replacements, type: QueryTypes.SELECT },
    );
    return fromOne<SetRun>(SET_COLUMNS, found!.found).sort((a, b) => a.startedAtMs - b.startedAtMs);
  }

  /** Finished runs of a set, with their reports; the oldest first. */
  async ofSet(setId: string): Promise<StoredRun[]> {
    const rows = await this.tables.runs.findAll({ where: { setId, status: 'finished' }, order: ['startedAtMs'] });
    return rows.map(wholeRun);
  }

  /**
   * What the runs of a site and reach since a time gave that are evidence of their path: bits per second and ms, in no order,
   * each only as far as it was measured; and the newest of them.
   */
  async figuresSince(siteId: string, reach: Reach, sinceMs: number): Promise<FiguresSince> {
    // The words of the index `runs_of_week`, which has all of it.
    const where = `siteId = :siteId AND reach = :reach AND startedAtMs >= :sinceMs AND status = 'finished'
      AND ${OF_RATE} AND evidence IN (${OF_PATH}) AND farEnd <> 'web'`;
    const options = { replacements: { siteId, reach, sinceMs }, type: QueryTypes.SELECT } as const;
    const [of] = await this.sequelize.query<{ down: string; up: string; added: string; count: number }>(
      `SELECT json_group_array(downBps) AS down, json_group_array(upBps) AS up, json_group_array(addedMs) AS added,
         COUNT(*) AS count FROM runs INDEXED BY runs_of_week WHERE ${where}`,
      options,
    );
    const [newest] = await this.sequelize.query<{ runId: string; startedAtMs: number }>(
      `SELECT id AS runId, startedAtMs FROM runs INDEXED BY runs_of_week WHERE ${where} ORDER BY startedAtMs DESC LIMIT 1`,
      options,
    );
    const known = (text: string) => (JSON.parse(text) as (number | null)[]).filter((value) => value !== null);
    const { down, up, added, count } = of!;
    return { count, downBps: known(down), upBps: known(up), addedMs: known(added), newest: newest ?? null };
  }

  /**
   * What a device reached over a kind of link and a reach from a time on, by runs that are evidence of the same. Bits per
   * second; what is null was not measured.
   */
  async ratesSince(
    {
      siteId,
      deviceId,
      linkKind,
      reach,
      practice,
    }: Pick<StoredRun, 'siteId' | 'deviceId' | 'linkKind' | 'reach' | 'practice'>,
    sinceMs: number,
  ): Promise<Pick<StoredRun, 'downBps' | 'upBps'>[]> {
    const rows = await this.tables.runs.findAll({
      where: {
        ...{ siteId, deviceId, linkKind, reach, status: 'finished' },
        ...{ evidence: practice ? 'practice' : 'alone', startedAtMs: { [Op.gte]: sinceMs } },
        profile: { [Op.notIn]: NOT_OF_RATE },
      },
      attributes: ['downBps', 'upBps'],
    });
    return rows.map((row) => row.get({ plain: true }));
  }

  /** The runs of a device and reach just before and after one. */
  async neighbours(run: StoredRun): Promise<{ readonly before: RunLine | null; readonly after: RunLine | null }> {
    const { siteId, deviceId, reach, startedAtMs } = run;
    const next = async (op: symbol, direction: 'ASC' | 'DESC') => {
      const row = await this.tables.runs.findOne({
        where: { siteId, deviceId, reach, startedAtMs: { [op]: startedAtMs }, ...KEPT },
        attributes: { exclude: [...LONG_COLUMNS] },
        order: [['startedAtMs', direction]],
      });
      return row?.get({ plain: true }) ?? null;
    };
    return { before: await next(Op.lt, 'DESC'), after: await next(Op.gt, 'ASC') };
  }

  /** The runs of a device over a kind of link and a reach before a time, with the sets they belong to, the newest first. */
  async figuresBefore(
    { siteId, deviceId, linkKind, reach, practice, startedAtMs }: StoredRun,
    limit: number,
  ): Promise<Pick<StoredRun, 'setId' | 'downBps' | 'upBps' | 'addedMs'>[]> {
    const rows = await this.tables.runs.findAll({
      where: {
        ...{ siteId, deviceId, linkKind, reach, status: 'finished' },
        ...{ evidence: practice ? 'practice' : 'alone', startedAtMs: { [Op.lt]: startedAtMs } },
        profile: { [Op.notIn]: NOT_OF_RATE },
      },
      attributes: ['setId', 'downBps', 'upBps', 'addedMs'],
      order: [['startedAtMs', 'DESC']],
      limit,
    });
    return rows.map((row) => row.get({ plain: true }));
  }

  /** Adds a line to what is written beside runs. */
  async addNote(siteId: string, ids: readonly string[], line: string): Promise<void> {
    await this.sequelize.query(
      `UPDATE runs SET notes = CASE notes WHEN '' THEN :line ELSE notes || char(10) || :line END
       WHERE siteId = :siteId AND status <> 'removed' AND id IN (SELECT value FROM json_each(:ids))`,
      { replacements: { siteId, line, ids: JSON.stringify(ids) } },
    );
  }

  /** What each finished run among these counts for is worked out anew by `evidenceOf`. */
  async setLeftOut(
    siteId: string,
    ids: readonly string[],
    leftOut: string | null,
    evidenceOf: (run: Pick<StoredRun, 'together' | 'practice' | 'flags'>) => StoredRun['evidence'],
  ): Promise<number> {
    return this.sequelize.transaction(async (transaction) => {
      let changed = 0;
      for (let from = 0; from < ids.length; from += MOST_BOUND) {
        const where = { siteId, status: ['finished', 'imported'], id: ids.slice(from, from + MOST_BOUND) };
        const rows = await this.tables.runs.findAll({
          ...{ where, attributes: ['id', 'together', 'practice', 'flags'], transaction },
        });
        for (const [evidence, of] of groupedBy(rows, (row) => evidenceOf(row)))
          await this.tables.runs.update({ leftOut, evidence }, { where: { id: of.map(({ id }) => id) }, transaction });
        changed += rows.length;
      }
      return changed;
    });
  }

  async saveNotes(id: string, notes: string): Promise<void> {
    await this.tables.runs.update({ notes }, { where: { id } });
  }

  async saveShare(id: string, shareNumber: number | null): Promise<void> {
    await this.tables.runs.update({ shareNumber }, { where: { id } });
  }

  async startedTogether(together: string): Promise<StoredRun[]> {
    const rows = await this.tables.runs.findAll({ where: { together, ...KEPT }, order: ['deviceName'] });
    return rows.map(wholeRun);
  }

  /** The newest finished run of a device over a kind of link and a reach that is evidence of its path. */
  async lastFinishedOf(siteId: string, deviceId: string, linkKind: string, reach: Reach): Promise<StoredRun | null> {
    const row = await this.tables.runs.findOne({
      where: { siteId, deviceId, linkKind, reach, status: 'finished', evidence: { [Op.in]: OF_ITS_PATH } },
      order: [['startedAtMs', 'DESC']],
    });
    return row === null ? null : wholeRun(row);
  }

  /** The peer that most finished runs of a site and reach went to since a time; null where there were none. */
  async usualPeerId(siteId: string, reach: Reach, sinceMs: number): Promise<string | null> {
    const [row] = await this.sequelize.query<{ peerId: string }>(
      `SELECT peerId FROM runs WHERE siteId = :siteId AND reach = :reach AND status = 'finished'
       AND evidence IN (${OF_PATH}) AND startedAtMs >= :sinceMs
       GROUP BY peerId ORDER BY COUNT(*) DESC, MAX(startedAtMs) DESC LIMIT 1`,
      { replacements: { siteId, reach, sinceMs }, type: QueryTypes.SELECT },
    );
    return row?.peerId ?? null;
  }
}
