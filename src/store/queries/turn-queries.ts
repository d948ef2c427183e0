import { Op, type Attributes } from 'sequelize';
import type { TurnRow } from '../models/rows';
import type { Tables } from '../models/tables';

export type StoredTurn = Attributes<TurnRow>;
export type TurnStatus = StoredTurn['status'];

const OPEN: readonly TurnStatus[] = ['waiting', 'asked', 'running'];

export class TurnQueries {
  constructor(private readonly tables: Tables) {}

  async byId(id: string): Promise<StoredTurn | null> {
    return (await this.tables.turns.findByPk(id))?.get({ plain: true }) ?? null;
  }

  /** Turns that are waited for or under way, in the order in which they were asked for. */
  async open(): Promise<StoredTurn[]> {
    const rows = await this.tables.turns.findAll({
      where: { status: { [Op.in]: [...OPEN] } },
      order: ['askedAtMs', 'place'],
    });
    return rows.map((row) => row.get({ plain: true }));
  }

  /** Turns that whoever sat at the device refused since a time, the newest first. */
  async refusedSince(siteId: string, endedAtMs: number): Promise<StoredTurn[]> {
    const rows = await this.tables.turns.findAll({
      where: { siteId, status: 'refused', endedAtMs: { [Op.gte]: endedAtMs } },
      order: [['endedAtMs', 'DESC']],
    });
    return rows.map((row) => row.get({ plain: true }));
  }

  async insert(turns: readonly StoredTurn[]): Promise<void> {
    await this.tables.turns.bulkCreate([...turns]);
  }

  async update(id: string, changes: Partial<Omit<StoredTurn, 'id'>>): Promise<void> {
    await this.tables.turns.update(changes, { where: { id } });
  }

  /** The turn that a run took; null when it took none. */
  async ofRun(runId: string): Promise<StoredTurn | null> {
    return (await this.tables.turns.findOne({ where: { runId } }))?.get({ plain: true }) ?? null;
  }

  /** Forgets turns that ended long ago. */
  async removeEndedBefore(endedAtMs: number): Promise<void> {
    await this.tables.turns.destroy({ where: { endedAtMs: { [Op.lt]: endedAtMs } } });
  }
}
