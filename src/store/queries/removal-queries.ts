import { Op, type Attributes, type Sequelize, type Transaction } from 'sequelize';
import { groupedBy } from '@/core';
import type { RemovalRow } from '../models/rows';
import type { Tables } from '../models/tables';
import type { StoredRun } from './run-queries';
import type { Device, Line, LineSwitch, StoredPeer, StoredPlan } from './site-queries';

export type StoredRemoval = Attributes<RemovalRow>;

/** A device that was merged into another, with the runs and the older ids that were its own. Absent in removals of before. */
interface Merger {
  readonly mergedRunIds: readonly string[];
  readonly mergedAliasIds?: readonly string[];
  readonly mergedIntoId?: string;
}
type MergedDevice = Device & Merger;

/** Id of the device that a removed one was merged into; null: it was removed. */
export function mergedInto(removed: object): string | null {
  return 'mergedIntoId' in removed ? String(removed.mergedIntoId) : null;
}

/** What a removal of an older version does not hold. */
const PLAIN_DEVICE = { kind: null, notes: '', simulated: false } as const;
const PLAIN_PEER = { pinned: false, publicKey: null, otherKey: null, farSiteId: null } as const;

/** A line with what goes when it goes. */
export interface RemovedLine {
  readonly line: Line;
  readonly plans: readonly StoredPlan[];
  readonly switches: readonly LineSwitch[];
}

/** Runs that were removed together, and how each had ended. */
interface RemovedRuns {
  readonly runs: readonly { readonly id: string; readonly status: StoredRun['status'] }[];
}

/** SQLite binds only so many values in one statement. */
const BATCH = 500;

/** Removing and putting back. What was removed is kept whole, and either stands in its table or among the removals. */
export class RemovalQueries {
  constructor(
    private readonly sequelize: Sequelize,
    private readonly tables: Tables,
  ) {}

  /** The newest first. */
  async since(siteId: string, sinceMs: number): Promise<StoredRemoval[]> {
    const rows = await this.tables.removals.findAll({
      where: { siteId, removedAtMs: { [Op.gte]: sinceMs } },
      order: [['removedAtMs', 'DESC']],
    });
    return rows.map((row) => row.get({ plain: true }));
  }

  async byId(id: string): Promise<StoredRemoval | null> {
    return (await this.tables.removals.findByPk(id))?.get({ plain: true }) ?? null;
  }

  /**
   * Makes one device of two: the runs of the first go to the second, and whoever knows itself as the first is known as
   * the second. What is needed to undo it is kept with the removal.
   */
  async mergeDevices(removal: StoredRemoval, intoId: string): Promise<void> {
    const { id } = removal;
    await this.sequelize.transaction(async (transaction) => {
      const moved = await this.tables.runs.findAll({ where: { deviceId: id }, attributes: ['id'], transaction });
      const aliases = await this.tables.deviceAliases.findAll({ where: { deviceId: id }, transaction });
      const merged: MergedDevice = {
        ...(removal.removed as Device),
        ...{ mergedRunIds: moved.map((run) => run.id), mergedAliasIds: aliases.map((alias) => alias.id) },
        mergedIntoId: intoId,
      };
      await this.tables.runs.update({ deviceId: intoId }, { where: { deviceId: id }, transaction });
      await this.tables.deviceAliases.update({ deviceId: intoId }, { where: { deviceId: id }, transaction });
      await this.tables.deviceAliases.upsert({ id, deviceId: intoId }, { transaction });
      await this.tables.removals.upsert({ ...removal, removed: merged }, { transaction });
      await this.tables.devices.destroy({ where: { id }, transaction });
    });
  }

  /**
   * Removes runs that have ended; their rows stay as they are until they are forgotten. Answers how many there were: with
   * none, nothing is kept either.
   */
  async removeRuns(removal: Omit<StoredRemoval, 'kind' | 'removed' | 'name'>, ids: readonly string[]): Promise<number> {
    return this.sequelize.transaction(async (transaction) => {
      const { siteId } = removal;
      const runs: { id: string; status: StoredRun['status'] }[] = [];
      for (let from = 0; from < ids.length; from += BATCH) {
        const where = { siteId, id: ids.slice(from, from + BATCH), status: ['finished', 'unfinished', 'imported'] };
        const rows = await this.tables.runs.findAll({ where, attributes: ['id', 'status'], transaction });
        runs.push(...rows.map(({ id, status }) => ({ id, status })));
        await this.tables.runs.update({ status: 'removed' }, { where, transaction });
      }
      const removed: RemovedRuns = { runs };
      const name = runs.length === 1 ? '1 run' : `${runs.length} runs`;
      if (runs.length > 0)
        await this.tables.removals.create({ ...removal, kind: 'runs', name, removed }, { transaction });
      return runs.length;
    });
  }

  async #putBackRuns({ runs }: RemovedRuns, transaction: Transaction): Promise<void> {
    for (const [status, of] of groupedBy(runs, (run) => run.status))
      for (let from = 0; from < of.length; from += BATCH)
        await this.tables.runs.update(
          { status },
          { where: { id: of.slice(from, from + BATCH).map(({ id }) => id), status: 'removed' }, transaction },
        );
  }

  async remove(removal: StoredRemoval): Promise<void> {
    await this.sequelize.transaction(async (transaction) => {
      const where = { id: removal.id };
      await this.tables.removals.upsert(removal, { transaction });
      if (removal.kind === 'device') await this.tables.devices.destroy({ where, transaction });
      else if (removal.kind === 'peer') await this.tables.peers.destroy({ where, transaction });
      else await this.tables.lines.destroy({ where, transaction });
    });
  }

  async putBack(removal: StoredRemoval): Promise<void> {
    await this.sequelize.transaction(async (transaction) => {
      await this.tables.removals.destroy({ where: { id: removal.id }, transaction });
      if (removal.kind === 'device') {
        const {
          mergedRunIds = [],
          mergedAliasIds = [],
          mergedIntoId,
          ...device
        } = removal.removed as Device & Partial<Merger>;
        await this.tables.devices.create({ ...PLAIN_DEVICE, ...device }, { transaction });
        await this.tables.deviceAliases.destroy({ where: { id: device.id }, transaction });
        // What it was merged into may have been merged itself since; what went its own way meanwhile stays there.
        const into =
          mergedIntoId === undefined ? null : await this.tables.deviceAliases.findByPk(mergedIntoId, { transaction });
        const now = mergedIntoId === undefined ? {} : { deviceId: into?.deviceId ?? mergedIntoId };
        const own = { deviceId: device.id };
        for (let from = 0; from < mergedRunIds.length; from += BATCH)
          await this.tables.runs.update(own, {
            where: { id: mergedRunIds.slice(from, from + BATCH), ...now },
            transaction,
          });
        await this.tables.deviceAliases.update(own, { where: { id: [...mergedAliasIds], ...now }, transaction });
      } else if (removal.kind === 'runs') {
        await this.#putBackRuns(removal.removed as RemovedRuns, transaction);
      } else if (removal.kind === 'peer') {
        await this.tables.peers.create({ ...PLAIN_PEER, ...(removal.removed as StoredPeer) }, { transaction });
      } else {
        const { line, plans, switches } = removal.removed as RemovedLine;
        await this.tables.lines.create(line, { transaction });
        await this.tables.plans.bulkCreate([...plans], { transaction });
        await this.tables.lineSwitches.bulkCreate([...switches], { transaction });
      }
    });
  }

  async forgetBefore(removedAtMs: number): Promise<void> {
    const where = { removedAtMs: { [Op.lt]: removedAtMs } };
    await this.sequelize.transaction(async (transaction) => {
      const old = await this.tables.removals.findAll({ where: { ...where, kind: 'runs' }, transaction });
      for (const { removed } of old) {
        const ids = (removed as RemovedRuns).runs.map(({ id }) => id);
        for (let from = 0; from < ids.length; from += BATCH)
          await this.tables.runs.destroy({
            where: { id: ids.slice(from, from + BATCH), status: 'removed' },
            transaction,
          });
      }
      await this.tables.removals.destroy({ where, transaction });
    });
  }
}
