import { QueryTypes, type Attributes, type Sequelize } from 'sequelize';
import { COMPARABLE, type LedgerTerm } from '@/core';
import type { ComparisonRow } from '../models/rows';
import type { Tables } from '../models/tables';
import type { LedgerQueries } from './ledger-queries';
import type { StoredRun } from './run-queries';
import { fromOne, rowsAsOne } from './rows-as-one';

export type StoredComparison = Attributes<ComparisonRow>;

const COLUMNS = [
  ...([
    'id',
    'setId',
    'startedAtMs',
    'deviceName',
    'spotName',
    'peerName',
    'lineName',
    'plan',
    'reach',
    'linkKind',
  ] as const),
  ...(['profile', 'practice', 'told', 'methodVersion', 'downBps', 'upBps', 'idleMs', 'evidence', 'brief'] as const),
] as const;
/** A run as far as it is compared. */
export type ComparedRow = Pick<StoredRun, (typeof COLUMNS)[number]>;
/** More runs than this are not taken into one tray: the newest are. */
export const MOST_OF_A_TRAY = 20_000;

/** Comparisons that were kept, and the runs that they are made of. */
export class ComparisonQueries {
  constructor(
    private readonly sequelize: Sequelize,
    private readonly tables: Pick<Tables, 'comparisons'>,
    private readonly ledger: LedgerQueries,
  ) {}

  async byId(id: string): Promise<StoredComparison | null> {
    return (await this.tables.comparisons.findByPk(id))?.get({ plain: true }) ?? null;
  }

  /** The newest first. */
  async ofSite(siteId: string): Promise<StoredComparison[]> {
    const rows = await this.tables.comparisons.findAll({ where: { siteId }, order: [['madeAtMs', 'DESC']] });
    return rows.map((row) => row.get({ plain: true }));
  }

  async save(comparison: StoredComparison): Promise<void> {
    await this.tables.comparisons.upsert(comparison);
  }

  async remove(id: string): Promise<void> {
    await this.tables.comparisons.destroy({ where: { id } });
  }

  /** Finished runs with rates that match, the oldest first; `aside`: how many of them are no evidence of their path. */
  async runs(
    siteId: string,
    terms: readonly LedgerTerm[],
    runsOf: ReadonlyMap<string, readonly string[]>,
  ): Promise<{ readonly runs: readonly ComparedRow[]; readonly aside: number }> {
    const { sql, values } = await this.ledger.condition(siteId, terms, runsOf);
    const which = `${sql} AND status IN ('finished', 'imported') AND profile NOT IN ('delay', 'paced')`;
    const ofPath = `evidence IN (${COMPARABLE.map((each) => `'${each}'`).join(', ')})`;
    const [found] = await this.sequelize.query<{ found: string }>(
      `SELECT ${rowsAsOne(COLUMNS)} AS found FROM (SELECT ${COLUMNS.map((name) => `"${name}"`).join(', ')} FROM runs
         WHERE ${which} AND ${ofPath} ORDER BY startedAtMs DESC LIMIT ?)`,
      { replacements: [...values, MOST_OF_A_TRAY], type: QueryTypes.SELECT },
    );
    const [aside] = await this.sequelize.query<{ count: number }>(
      `SELECT COUNT(*) AS count FROM runs WHERE ${which} AND NOT ${ofPath}`,
      { replacements: [...values], type: QueryTypes.SELECT },
    );
    return { runs: fromOne<ComparedRow>(COLUMNS, found!.found), aside: aside!.count };
  }
}
