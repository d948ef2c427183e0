import { QueryTypes, type Sequelize } from 'sequelize';
import type { LookAsked, LookFound } from '@/core';
import { OF_RATE } from './of-rate';

/** What became of a look: found, or why not. */
export type LookEnd =
  | { readonly ok: true; readonly found: LookFound }
  | { readonly ok: false; readonly code: string; readonly sentence: string };

/** Something that a machine was asked to look at. */
export interface StoredLook {
  readonly id: string;
  readonly siteId: string;
  readonly deviceId: string;
  /** As it was called then. */
  readonly deviceName: string;
  readonly asked: LookAsked;
  readonly askedBy: string;
  readonly askedAtMs: number;
  /** Null: it is under way. */
  readonly endedAtMs: number | null;
  readonly outcome: LookEnd | null;
}

type Row = Omit<StoredLook, 'asked' | 'outcome'> & { readonly asked: string; readonly outcome: string | null };

const COLUMNS = [
  ...(['id', 'siteId', 'deviceId', 'deviceName', 'what', 'asked', 'askedBy', 'askedAtMs', 'endedAtMs'] as const),
  'outcome',
].join(', ');

export class LookQueries {
  constructor(private readonly sequelize: Sequelize) {}

  async insert({ asked, outcome, ...look }: StoredLook): Promise<void> {
    const { id, siteId, deviceId, deviceName, askedBy, askedAtMs, endedAtMs } = look;
    await this.sequelize.query(`INSERT INTO looks (${COLUMNS}) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`, {
      replacements: [
        ...[id, siteId, deviceId, deviceName, asked.what, JSON.stringify(asked), askedBy, askedAtMs, endedAtMs],
        outcome === null ? null : JSON.stringify(outcome),
      ],
    });
  }

  /** Writes down what became of one that is under way; false: it is over already. */
  async end(id: string, outcome: LookEnd, endedAtMs: number): Promise<boolean> {
    const [, changed] = await this.sequelize.query(
      'UPDATE looks SET outcome = ?, endedAtMs = ? WHERE id = ? AND endedAtMs IS NULL',
      { replacements: [JSON.stringify(outcome), endedAtMs, id], type: QueryTypes.UPDATE },
    );
    return changed > 0;
  }

  async byId(id: string): Promise<StoredLook | null> {
    return (await this.#looks('id = ?', [id]))[0] ?? null;
  }

  /** The newest first. */
  ofSite(siteId: string, most: number): Promise<StoredLook[]> {
    return this.#looks('siteId = ? ORDER BY askedAtMs DESC LIMIT ?', [siteId, most]);
  }

  /** The newest that found something, of a machine and kind. */
  async newestFound(deviceId: string, what: LookAsked['what']): Promise<StoredLook | null> {
    const where = `deviceId = ? AND what = ? AND outcome LIKE '{"ok":true%' ORDER BY askedAtMs DESC LIMIT 1`;
    return (await this.#looks(where, [deviceId, what]))[0] ?? null;
  }

  /** The same of an office: of whichever machine looked. */
  async newestOf(siteId: string, what: LookAsked['what']): Promise<StoredLook | null> {
    const where = `siteId = ? AND what = ? AND outcome LIKE '{"ok":true%' ORDER BY askedAtMs DESC LIMIT 1`;
    return (await this.#looks(where, [siteId, what]))[0] ?? null;
  }

  /** What the network inside brought to a machine in its newest run that counts, bits per second. */
  async insideRates(
    deviceId: string,
  ): Promise<{ readonly downBps: number | null; readonly upBps: number | null } | null> {
    const [found] = await this.sequelize.query<{ downBps: number | null; upBps: number | null }>(
      `SELECT downBps, upBps FROM runs WHERE deviceId = ? AND reach = 'local' AND status = 'finished' AND leftOut IS NULL
       AND ${OF_RATE} AND evidence IN ('alone', 'practice') ORDER BY startedAtMs DESC LIMIT 1`,
      { replacements: [deviceId], type: QueryTypes.SELECT },
    );
    return found ?? null;
  }

  underWay(): Promise<StoredLook[]> {
    return this.#looks('endedAtMs IS NULL', []);
  }

  async removeBefore(atMs: number): Promise<void> {
    await this.sequelize.query('DELETE FROM looks WHERE askedAtMs < ?', { replacements: [atMs] });
  }

  async #looks(where: string, values: readonly (string | number)[]): Promise<StoredLook[]> {
    const rows = await this.sequelize.query<Row>(`SELECT ${COLUMNS} FROM looks WHERE ${where}`, {
      replacements: [...values],
      type: QueryTypes.SELECT,
    });
    return rows.map(({ asked, outcome, ...row }) => ({
      ...row,
      asked: JSON.parse(asked) as LookAsked,
      outcome: outcome === null ? null : (JSON.parse(outcome) as LookEnd),
    }));
  }
}
