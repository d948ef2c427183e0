import { Op, QueryTypes, type Attributes, type Sequelize, type WhereOptions } from 'sequelize';
import type { LinkKind, Reach, RunSamples } from '@/core';
import type { RunRow, Tables } from '../models/tables';
import { packSamples, unpackSamples } from '../samples-blob';

export type StoredRun = Attributes<RunRow>;
/** A run without its long columns, for lists. */
export type RunLine = Omit<StoredRun, 'report'>;

/** What the ledger can be narrowed to. */
export interface RunFilter {
  readonly deviceId?: string | undefined;
  readonly linkKind?: LinkKind | undefined;
  readonly reach?: Reach | undefined;
}

/** How a running run ends. */
export type RunEnding = Pick<StoredRun, 'status' | 'reason' | 'endedAtMs'> & Partial<StoredRun>;

export class RunQueries {
  constructor(
    private readonly sequelize: Sequelize,
    private readonly tables: Tables,
  ) {}

  async byId(id: string): Promise<StoredRun | null> {
    const row = await this.tables.runs.findByPk(id);
    return row === null ? null : row.get({ plain: true });
  }

  async insert(run: StoredRun): Promise<void> {
    await this.tables.runs.create(run);
  }

  async running(): Promise<StoredRun[]> {
    const rows = await this.tables.runs.findAll({ where: { status: 'running' }, order: ['startedAtMs'] });
    return rows.map((row) => row.get({ plain: true }));
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
    return rows.map((row) => row.get({ plain: true }));
  }

  /** Writes the figures of a finished run anew; its samples and conditions stay. */
  async replaceFigures(id: string, figures: Partial<StoredRun>): Promise<void> {
    await this.tables.runs.update(figures, { where: { id, status: 'finished' } });
  }

  /** Newest first. */
  async list(siteId: string, filter: RunFilter, limit: number, offset: number): Promise<RunLine[]> {
    const rows = await this.tables.runs.findAll({
      where: this.#where(siteId, filter),
      attributes: { exclude: ['report'] },
      order: [['startedAtMs', 'DESC']],
      limit,
      offset,
    });
    return rows.map((row) => row.get({ plain: true }));
  }

  async count(siteId: string, filter: RunFilter): Promise<number> {
    return this.tables.runs.count({ where: this.#where(siteId, filter) });
  }

  /** The newest finished run of each device, kind of link and reach. Runs that measured only delay have no place there. */
  async newestOfEach(siteId: string): Promise<StoredRun[]> {
    const found = await this.sequelize.query<{ id: string }>(
      `SELECT id FROM (
         SELECT id, ROW_NUMBER() OVER (PARTITION BY deviceId, linkKind, reach ORDER BY startedAtMs DESC) AS place
         FROM runs WHERE siteId = :siteId AND status = 'finished' AND profile NOT IN ('delay', 'paced'))
       WHERE place = 1`,
      { replacements: { siteId }, type: QueryTypes.SELECT },
    );
    const rows = await this.tables.runs.findAll({ where: { id: found.map((row) => row.id) } });
    return rows.map((row) => row.get({ plain: true }));
  }

  /** Finished runs of sets, with their reports; the oldest first. */
  async ofSets(setIds: readonly string[]): Promise<StoredRun[]> {
    const rows = await this.tables.runs.findAll({
      where: { setId: [...setIds], status: 'finished' },
      order: ['startedAtMs'],
    });
    return rows.map((row) => row.get({ plain: true }));
  }

  async startedTogether(together: string): Promise<StoredRun[]> {
    const rows = await this.tables.runs.findAll({ where: { together }, order: ['deviceName'] });
    return rows.map((row) => row.get({ plain: true }));
  }

  /** The newest finished run of a device and reach. */
  async lastFinishedOf(siteId: string, deviceId: string, reach: Reach): Promise<StoredRun | null> {
    const row = await this.tables.runs.findOne({
      where: { siteId, deviceId, reach, status: 'finished' },
      order: [['startedAtMs', 'DESC']],
    });
    return row === null ? null : row.get({ plain: true });
  }

  /** The peer that most finished runs of a site and reach went to; null before the first. */
  async usualPeerId(siteId: string, reach: Reach): Promise<string | null> {
    const [row] = await this.sequelize.query<{ peerId: string }>(
      `SELECT peerId FROM runs WHERE siteId = :siteId AND reach = :reach AND status = 'finished'
       GROUP BY peerId ORDER BY COUNT(*) DESC, MAX(startedAtMs) DESC LIMIT 1`,
      { replacements: { siteId, reach }, type: QueryTypes.SELECT },
    );
    return row?.peerId ?? null;
  }

  #where(siteId: string, { deviceId, linkKind, reach }: RunFilter): WhereOptions<RunRow> {
    return {
      siteId,
      ...(deviceId === undefined ? {} : { deviceId }),
      ...(linkKind === undefined ? {} : { linkKind }),
      ...(reach === undefined ? {} : { reach }),
    };
  }
}
