import { QueryTypes, type Sequelize } from 'sequelize';
import type { PeerReach, Side } from '@/core';

/** One of the two: whose runs, to which peer (null: the usual one of the reach), and what it is called. */
export interface AlternatedSide {
  readonly deviceId: string;
  readonly peerId: string | null;
  readonly name: string;
}

/** Two things that are measured turn and turn about. */
export interface StoredAlternation {
  readonly id: string;
  readonly siteId: string;
  readonly sides: readonly [AlternatedSide, AlternatedSide];
  readonly byHand: boolean;
  readonly reach: PeerReach;
  readonly profile: 'quick' | 'standard' | 'thorough';
  /** Runs of each that are wanted. */
  readonly times: number;
  readonly runs: readonly [readonly string[], readonly string[]];
  readonly readyFor: Side | null;
  /** The turn that is waited for; null: none is. */
  readonly turnId: string | null;
  /** `held`: the last turn brought no result; somebody has to say that it goes on. */
  readonly state: 'going' | 'held' | 'done' | 'stopped';
  /** Why it is held; null: it is not. */
  readonly why: 'refused' | 'withdrawn' | 'unfinished' | 'refused-here' | null;
  readonly byName: string;
  readonly madeAtMs: number;
  /** Where they are held side by side, once it is done. */
  readonly comparisonId: string | null;
}

type Row = Omit<StoredAlternation, 'sides' | 'runs' | 'byHand'> & {
  readonly sides: string;
  readonly runs: string;
  readonly byHand: number;
};
const DOCUMENTS = ['sides', 'runs'] as const;
const COLUMNS = [
  ...(['id', 'siteId', ...DOCUMENTS, 'byHand', 'reach', 'profile', 'times', 'readyFor', 'turnId', 'state'] as const),
  ...(['why', 'byName', 'madeAtMs', 'comparisonId'] as const),
] as const;

/** Those of before a peer could be named have none. */
const readSide = (side: Partial<AlternatedSide>) => ({ peerId: null, ...side }) as AlternatedSide;
const readRow = (row: Row): StoredAlternation => ({
  ...row,
  byHand: row.byHand === 1,
  sides: (JSON.parse(row.sides) as Partial<AlternatedSide>[]).map(readSide) as unknown as StoredAlternation['sides'],
  runs: JSON.parse(row.runs) as StoredAlternation['runs'],
});

export class AlternationQueries {
  constructor(private readonly sequelize: Sequelize) {}

  async byId(id: string): Promise<StoredAlternation | null> {
    return (await this.#select('id = ?', [id]))[0] ?? null;
  }

  /** The newest first. */
  ofSite(siteId: string): Promise<StoredAlternation[]> {
    return this.#select('siteId = ?', [siteId]);
  }

  /** Those that go on by themselves. */
  going(): Promise<StoredAlternation[]> {
    return this.#select(`state = 'going'`, []);
  }

  async save(alternation: StoredAlternation): Promise<void> {
    const values = COLUMNS.map((name) => {
      const value = alternation[name];
      return (DOCUMENTS as readonly string[]).includes(name)
        ? JSON.stringify(value)
        : value === true
          ? 1
          : value === false
            ? 0
            : value;
    });
    await this.sequelize.query(
      `INSERT OR REPLACE INTO alternations (${COLUMNS.join(', ')}) VALUES (${COLUMNS.map(() => '?').join(', ')})`,
      { replacements: values },
    );
  }

  async #select(where: string, values: readonly string[]): Promise<StoredAlternation[]> {
    const rows = await this.sequelize.query<Row>(`SELECT * FROM alternations WHERE ${where} ORDER BY madeAtMs DESC`, {
      replacements: [...values],
      type: QueryTypes.SELECT,
    });
    return rows.map(readRow);
  }
}
