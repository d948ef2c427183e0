import { QueryTypes, type Sequelize } from 'sequelize';
import type { LedgerTerm } from '@/core';
import type { LedgerQueries } from './ledger-queries';
import type { StoredRun } from './run-queries';
import { fromOne, rowsAsOne } from './rows-as-one';

const COLUMNS = [
  ...(['id', 'setId', 'startedAtMs', 'endedAtMs', 'status', 'reason', 'deviceName', 'spotName', 'peerName'] as const),
  ...([
    'lineName',
    'reach',
    'link',
    'linkKind',
    'profile',
    'practice',
    'demo',
    'verdict',
    'evidence',
    'leftOut',
  ] as const),
  ...(['flags', 'plan', 'downBps', 'upBps', 'idleMs', 'addedMs', 'brief', 'methodVersion', 'notes'] as const),
] as const;
/** A run as it is taken out. */
export type ExportedRow = Pick<StoredRun, (typeof COLUMNS)[number]> & { readonly tags: readonly string[] };

const AT_ONCE = 1000;

/** Runs in the order of time, for files that leave the console: never all of them at once in memory. */
export class ExportQueries {
  constructor(
    private readonly sequelize: Sequelize,
    private readonly ledger: LedgerQueries,
  ) {}

  /** The newest first, a thousand at a time. */
  async *runs(
    siteId: string,
    terms: readonly LedgerTerm[],
    runsOf: ReadonlyMap<string, readonly string[]>,
  ): AsyncGenerator<readonly ExportedRow[]> {
    const { sql, values } = await this.ledger.condition(siteId, terms, runsOf);
    let behind: { readonly sql: string; readonly values: readonly (string | number)[] } = { sql: '1', values: [] };
    for (;;) {
      const [found] = await this.sequelize.query<{ found: string }>(
        `SELECT ${rowsAsOne(COLUMNS)} AS found FROM (SELECT ${COLUMNS.map((name) => `"${name}"`).join(', ')} FROM runs
           WHERE ${sql} AND ${behind.sql} ORDER BY startedAtMs DESC, id DESC LIMIT ?)`,
        { replacements: [...values, ...behind.values, AT_ONCE], type: QueryTypes.SELECT },
      );
      const rows = fromOne<Omit<ExportedRow, 'tags'>>(COLUMNS, found!.found).sort(
        (a, b) => b.startedAtMs - a.startedAtMs || (a.id < b.id ? 1 : -1),
      );
      const last = rows.at(-1);
      if (last === undefined) return;
      const tags = await this.ledger.tagsOf(rows.map(({ id }) => id));
      yield rows.map((row) => ({ ...row, tags: tags.get(row.id) ?? [] }));
      if (rows.length < AT_ONCE) return;
      behind = {
        // The first part lets the index begin there.
        sql: 'startedAtMs <= ? AND (startedAtMs < ? OR id < ?)',
        values: [last.startedAtMs, last.startedAtMs, last.id],
      };
    }
  }
}
