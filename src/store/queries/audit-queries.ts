import { Op, type Attributes, type WhereOptions } from 'sequelize';
import type { AuditRow } from '../models/rows';
import type { Tables } from '../models/tables';

export type { Facts } from '../models/rows';
export type AuditEntry = Attributes<AuditRow>;
export type NewAuditEntry = Omit<AuditEntry, 'id'>;

/** Narrows what is read. `beforeId`: older than that entry (keyset paging). */
export interface AuditFilter {
  readonly beforeId?: number | null;
  readonly who?: string | null;
  readonly whats?: readonly string[] | null;
}

/** What was done, written once and only read from then on. */
export class AuditQueries {
  constructor(private readonly tables: Tables) {}

  async add(entry: NewAuditEntry): Promise<void> {
    await this.tables.audit.create(entry);
  }

  /** The newest first, at most `most`. */
  async page({ beforeId = null, who = null, whats = null }: AuditFilter, most: number): Promise<AuditEntry[]> {
    const where: WhereOptions<AuditRow> = {
      ...(beforeId !== null && { id: { [Op.lt]: beforeId } }),
      ...(who !== null && { who }),
      ...(whats !== null && { what: { [Op.in]: [...whats] } }),
    };
    const rows = await this.tables.audit.findAll({ where, order: [['id', 'DESC']], limit: most });
    return rows.map((row) => row.get({ plain: true }));
  }

  /** Everybody who has done something, by name. */
  async names(): Promise<string[]> {
    const rows = await this.tables.audit.findAll({ attributes: ['who'], group: ['who'], order: ['who'] });
    return rows.map(({ who }) => who);
  }

  /** Forgets what is older than a time, and all but the newest `most`. */
  async forget(beforeMs: number, most: number): Promise<void> {
    await this.tables.audit.destroy({ where: { atMs: { [Op.lt]: beforeMs } } });
    const [last] = await this.tables.audit.findAll({ order: [['id', 'DESC']], offset: most, limit: 1 });
    if (last !== undefined) await this.tables.audit.destroy({ where: { id: { [Op.lte]: last.id } } });
  }
}
