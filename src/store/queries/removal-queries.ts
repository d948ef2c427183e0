import { Op, type Attributes, type Sequelize } from 'sequelize';
import type { RemovalRow, Tables } from '../models/tables';
import type { Device, StoredPeer } from './site-queries';

export type StoredRemoval = Attributes<RemovalRow>;

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

  async remove(removal: StoredRemoval): Promise<void> {
    await this.sequelize.transaction(async (transaction) => {
      const where = { id: removal.id };
      await this.tables.removals.upsert(removal, { transaction });
      if (removal.kind === 'device') await this.tables.devices.destroy({ where, transaction });
      else await this.tables.peers.destroy({ where, transaction });
    });
  }

  async putBack(removal: StoredRemoval): Promise<void> {
    await this.sequelize.transaction(async (transaction) => {
      await this.tables.removals.destroy({ where: { id: removal.id }, transaction });
      if (removal.kind === 'device') await this.tables.devices.create(removal.removed as Device, { transaction });
      else await this.tables.peers.create(removal.removed as StoredPeer, { transaction });
    });
  }

  async forgetBefore(removedAtMs: number): Promise<void> {
    await this.tables.removals.destroy({ where: { removedAtMs: { [Op.lt]: removedAtMs } } });
  }
}
