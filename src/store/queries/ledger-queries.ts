import { QueryTypes, type Sequelize } from 'sequelize';
import { foldedName, type LedgerTerm } from '@/core';
import type { RunLine, RunQueries } from './run-queries';
import { ledgerCondition, type Condition, type LookedUp } from './ledger-where';

/** What the ledger may be sorted by, and the column that holds it. Runs of the same value: the newest first. */
export const LEDGER_SORTS = {
  when: 'startedAtMs',
  device: 'deviceName',
  spot: 'spotName',
  peer: 'peerName',
  link: 'linkKind',
  reach: 'reach',
  profile: 'profile',
  down: 'downBps',
  up: 'upBps',
  idle: 'idleMs',
  added: 'addedMs',
  verdict: 'verdict',
} as const;
export type LedgerSort = keyof typeof LEDGER_SORTS;

export interface LedgerOrder {
  readonly by: LedgerSort;
  readonly descending: boolean;
}

/** A run as the ledger shows it. */
export type LedgerRun = RunLine & { readonly tags: readonly string[] };

/** The order's own value of the last run of a page, its start and its id: just behind it the next page begins. */
export type LedgerPlace = readonly [value: string | number | null, startedAtMs: number, id: string];

export interface LedgerSlice {
  readonly runs: readonly LedgerRun[];
  /** Null: that was the last. */
  readonly next: LedgerPlace | null;
}

/** More than so many are not counted out. */
export const MOST_COUNTED = 10_000;
type Values = readonly (string | number)[];
const KEPT_WHOLE = "status <> 'removed'";

function orderSql({ by, descending }: LedgerOrder): string {
  const column = LEDGER_SORTS[by];
  const way = descending ? 'DESC' : 'ASC';
  if (by === 'when') return `startedAtMs ${way}, id ${way}`;
  // What a run does not have stands last, whichever way is asked for.
  return `${column} ${way} NULLS LAST, startedAtMs DESC, id DESC`;
}

/** What stands behind a place in an order. */
function behindSql(
  { by, descending }: LedgerOrder,
  [value, startedAtMs, id]: LedgerPlace,
): { sql: string; values: Values } {
  if (by === 'when') {
    const past = descending ? '<' : '>';
    // The first part lets the index begin there.
    return {
      sql: `startedAtMs ${past}= ? AND (startedAtMs ${past} ? OR id ${past} ?)`,
      values: [startedAtMs, startedAtMs, id],
    };
  }
  const column = LEDGER_SORTS[by];
  const same = '(startedAtMs < ? OR (startedAtMs = ? AND id < ?))';
  const sameValues = [startedAtMs, startedAtMs, id];
  if (value === null) return { sql: `${column} IS NULL AND ${same}`, values: sameValues };
  return {
    sql: `(${column} ${descending ? '<' : '>'} ? OR ${column} IS NULL OR (${column} = ? AND ${same}))`,
    values: [value, value, ...sameValues],
  };
}

/** The list of all runs: narrowed, sorted, a slice at a time. */
export class LedgerQueries {
  constructor(
    private readonly sequelize: Sequelize,
    private readonly runs: RunQueries,
  ) {}

  /** `runsOf`: ids of the runs that each finding or swap of the terms is about, by "finding ID". */
  async slice(
    siteId: string,
    terms: readonly LedgerTerm[],
    order: LedgerOrder,
    limit: number,
    after: LedgerPlace | null = null,
    runsOf: ReadonlyMap<string, readonly string[]> = new Map(),
  ): Promise<LedgerSlice> {
    const { sql, values } = await this.condition(siteId, terms, runsOf);
    const behind = after === null ? { sql: '1', values: [] } : behindSql(order, after);
    const found = await this.#select<{ id: string }>(
      `SELECT id FROM runs INDEXED BY runs_ledger WHERE ${sql} AND ${behind.sql} ORDER BY ${orderSql(order)} LIMIT ?`,
      [...values, ...behind.values, limit + 1],
    );
    const ids = found.slice(0, limit).map(({ id }) => id);
    const lines = await this.runs.lines(ids);
    const tags = await this.tagsOf(ids);
    const runs = ids.flatMap((id) => {
      const line = lines.get(id);
      return line === undefined ? [] : [{ ...line, tags: tags.get(id) ?? [] }];
    });
    const last = runs.at(-1);
    if (found.length <= limit || last === undefined) return { runs, next: null };
    return { runs, next: [last[LEDGER_SORTS[order.by]], last.startedAtMs, last.id] };
  }

  /** How many match; from MOST_COUNTED on only that it is more. */
  async count(
    siteId: string,
    terms: readonly LedgerTerm[],
    runsOf: ReadonlyMap<string, readonly string[]> = new Map(),
  ): Promise<{ readonly count: number; readonly isMore: boolean }> {
    const { sql, values } = await this.condition(siteId, terms, runsOf);
    const [row] = await this.#select<{ count: number }>(
      `SELECT COUNT(*) AS count FROM (SELECT 1 FROM runs INDEXED BY runs_ledger WHERE ${sql} LIMIT ?)`,
      [...values, MOST_COUNTED + 1],
    );
    return { count: Math.min(row!.count, MOST_COUNTED), isMore: row!.count > MOST_COUNTED };
  }

  /** Ids of all that match, the newest first, up to a number. */
  async ids(
    siteId: string,
    terms: readonly LedgerTerm[],
    limit: number,
    runsOf: ReadonlyMap<string, readonly string[]> = new Map(),
  ): Promise<string[]> {
    const { sql, values } = await this.condition(siteId, terms, runsOf);
    const rows = await this.#select<{ id: string }>(
      `SELECT id FROM runs INDEXED BY runs_ledger WHERE ${sql} ORDER BY startedAtMs DESC, id DESC LIMIT ?`,
      [...values, limit],
    );
    return rows.map(({ id }) => id);
  }

  /** Every name and tag that runs of an office have, by field. */
  async names(siteId: string): Promise<LookedUp['names']> {
    const rows = await this.#select<{ field: string; name: string }>(
      `SELECT field, name FROM run_names WHERE siteId = ?
       UNION ALL SELECT 'tag', tag FROM (SELECT DISTINCT tag FROM run_tags WHERE siteId = ?)`,
      [siteId, siteId],
    );
    const of = (field: string) =>
      rows.flatMap((row) => (row.field === field ? [[row.name, foldedName(row.name)] as const] : []));
    return { device: of('device'), spot: of('spot'), peer: of('peer'), line: of('line'), tag: of('tag') };
  }

  async tagsOf(ids: readonly string[]): Promise<ReadonlyMap<string, readonly string[]>> {
    const rows = await this.#select<{ runId: string; tags: string }>(
      `SELECT runId, json_group_array(tag) AS tags FROM run_tags WHERE runId IN (SELECT value FROM json_each(?)) GROUP BY runId`,
      [JSON.stringify(ids)],
    );
    return new Map(rows.map(({ runId, tags }) => [runId, JSON.parse(tags) as string[]]));
  }

  /** Puts a tag on runs, or takes it off. */
  async setTag(siteId: string, ids: readonly string[], tag: string, on: boolean): Promise<void> {
    const [sql, values] = on
      ? [
          `INSERT OR IGNORE INTO run_tags (runId, tag, siteId) SELECT id, ?, siteId FROM runs
           WHERE siteId = ? AND id IN (SELECT value FROM json_each(?))`,
          [tag, siteId, JSON.stringify(ids)],
        ]
      : [
          `DELETE FROM run_tags WHERE tag = ? AND siteId = ? AND runId IN (SELECT value FROM json_each(?))`,
          [tag, siteId, JSON.stringify(ids)],
        ];
    await this.sequelize.query(sql, { replacements: values });
  }

  async views(siteId: string): Promise<LedgerView[]> {
    return this.#select<LedgerView>('SELECT * FROM ledger_views WHERE siteId = ? ORDER BY name', [siteId]);
  }

  /** One of the same name gives way. */
  async saveView({ id, siteId, name, query, byName, madeAtMs }: LedgerView): Promise<void> {
    await this.sequelize.query(
      `INSERT INTO ledger_views (id, siteId, name, query, byName, madeAtMs) VALUES (?, ?, ?, ?, ?, ?)
       ON CONFLICT (siteId, name) DO UPDATE SET query = excluded.query, byName = excluded.byName, madeAtMs = excluded.madeAtMs`,
      { replacements: [id, siteId, name, query, byName, madeAtMs] },
    );
  }

  async removeView(siteId: string, name: string): Promise<void> {
    await this.sequelize.query('DELETE FROM ledger_views WHERE siteId = ? AND name = ?', {
      replacements: [siteId, name],
    });
  }

  /** All terms as SQL on the table of runs; what was removed is not among it. */
  async condition(siteId: string, terms: readonly LedgerTerm[], runsOf: LookedUp['runsOf']): Promise<Condition> {
    const asksNames = terms.some(({ is }) => is === 'words' || is === 'text');
    const asksNotes = terms.some((term) => term.is === 'words' || (term.is === 'text' && term.field === 'note'));
    const none: LookedUp['names'] = { device: [], spot: [], peer: [], line: [], tag: [] };
    const [names, notes] = await Promise.all([
      asksNames ? this.names(siteId) : none,
      asksNotes
        ? this.#select<{ id: string; notes: string }>(
            `SELECT id, notes FROM runs INDEXED BY runs_noted WHERE siteId = ? AND notes <> ''`,
            [siteId],
          )
        : [],
    ]);
    const folded = notes.map(({ id, notes: text }) => ({ id, folded: foldedName(text) }));
    const { sql, values } = ledgerCondition(terms, { names, notes: folded, runsOf, siteId });
    return { sql: `${sql} AND ${KEPT_WHOLE}`, values };
  }

  #select<Row extends object>(sql: string, replacements: Values): Promise<Row[]> {
    return this.sequelize.query<Row>(sql, { replacements: [...replacements], type: QueryTypes.SELECT });
  }
}

/** A way to look at the ledger, kept under a name. `query`: what stands in the address. */
export interface LedgerView {
  readonly id: string;
  readonly siteId: string;
  readonly name: string;
  readonly query: string;
  readonly byName: string;
  readonly madeAtMs: number;
}
