import { QueryTypes, type Sequelize } from 'sequelize';

/** A file that runs were brought in from. */
export interface StoredImport {
  readonly id: string;
  readonly siteId: string;
  readonly fileName: string;
  /** Of the file's bytes, in hexadecimal. */
  readonly sha256: string;
  readonly byName: string;
  readonly madeAtMs: number;
  readonly runs: number;
  /** `going`: it is being written, `landing`: all of it is, and comes to light. */
  readonly state: 'going' | 'landing' | 'done' | 'undone';
}

/** What of a run a file can say, and the ids of the device and line that it names, as far as this office has them. */
export interface ImportRow {
  readonly id: string;
  readonly setId: string;
  readonly deviceId: string;
  readonly lineId: string | null;
  readonly deviceName: string;
  readonly spotName: string | null;
  readonly peerName: string;
  readonly lineName: string | null;
  readonly reach: string;
  readonly link: object;
  readonly linkKind: string;
  readonly profile: string;
  readonly startedAtMs: number;
  readonly endedAtMs: number | null;
  readonly downBps: number | null;
  readonly upBps: number | null;
  readonly idleMs: number | null;
  readonly addedMs: number | null;
  readonly brief: object;
  readonly notes: string;
  readonly tags: readonly string[];
}

const COLUMNS = [
  ...(['id', 'setId', 'deviceId', 'lineId', 'deviceName', 'spotName', 'peerName', 'lineName', 'reach'] as const),
  ...(['linkKind', 'profile', 'startedAtMs', 'endedAtMs', 'downBps', 'upBps', 'idleMs', 'addedMs', 'notes'] as const),
] as const;
const DOCUMENTS = ['link', 'brief'] as const;
/** Deleted with one statement, so that what is handed in meanwhile does not wait. */
const AT_ONCE = 2000;

/**
 * Files that runs were brought in from. While one is being written its runs are as good as removed; once all are written they
 * come to light, and nothing stops that any more.
 */
export class ImportQueries {
  constructor(private readonly sequelize: Sequelize) {}

  /** The newest first. */
  async ofSite(siteId: string): Promise<StoredImport[]> {
    return this.#select<StoredImport>(`SELECT * FROM imports WHERE siteId = ? ORDER BY madeAtMs DESC`, [siteId]);
  }

  async byId(id: string): Promise<StoredImport | null> {
    return (await this.#select<StoredImport>('SELECT * FROM imports WHERE id = ?', [id]))[0] ?? null;
  }

  /** The file of this content whose runs are in the record of an office; null: there is none. */
  async ofContent(siteId: string, sha256: string): Promise<StoredImport | null> {
    const which = `siteId = ? AND sha256 = ? AND state = 'done'`;
    return (await this.#select<StoredImport>(`SELECT * FROM imports WHERE ${which}`, [siteId, sha256]))[0] ?? null;
  }

  async begin(made: Omit<StoredImport, 'state' | 'runs'>): Promise<void> {
    const { id, siteId, fileName, sha256, byName, madeAtMs } = made;
    await this.sequelize.query(
      `INSERT INTO imports (id, siteId, fileName, sha256, byName, madeAtMs, runs, state) VALUES (?, ?, ?, ?, ?, ?, 0, 'going')`,
      { replacements: [id, siteId, fileName, sha256, byName, madeAtMs] },
    );
  }

  /** Ids among these that runs of the record have, those of removed runs too: they can be put back. */
  async known(ids: readonly string[]): Promise<ReadonlySet<string>> {
    const rows = await this.#select<{ id: string }>(
      'SELECT id FROM runs WHERE id IN (SELECT value FROM json_each(?))',
      [JSON.stringify(ids)],
    );
    return new Set(rows.map(({ id }) => id));
  }

  /** Writes runs of a file that is being brought in; nobody sees them yet. */
  async write({ id, siteId }: Pick<StoredImport, 'id' | 'siteId'>, rows: readonly ImportRow[]): Promise<void> {
    const values = rows.map((row) => [...COLUMNS.map((name) => row[name]), ...DOCUMENTS.map((name) => row[name])]);
    const taken = COLUMNS.map((_, place) => `value ->> ${place}`);
    const documents = DOCUMENTS.map((_, place) => `json(value -> ${COLUMNS.length + place})`);
    const tags = rows.flatMap((row) => row.tags.map((tag) => [row.id, tag]));
    await this.sequelize.transaction(async (transaction) => {
      await this.sequelize.query(
        `INSERT INTO runs (siteId, importId, status, peerId, practice, demo, lastSeenAtMs, evidence, flags, told, noticed,
           ${[...COLUMNS, ...DOCUMENTS].join(', ')})
         SELECT ?, ?, 'removed', '', 0, 0, value ->> ${COLUMNS.indexOf('startedAtMs')}, 'imported', ' imported ', '[]', '[]',
           ${[...taken, ...documents].join(', ')} FROM json_each(?)`,
        { replacements: [siteId, id, JSON.stringify(values)], transaction },
      );
      if (tags.length > 0)
        await this.sequelize.query(
          `INSERT OR IGNORE INTO run_tags (runId, tag, siteId) SELECT value ->> 0, value ->> 1, ? FROM json_each(?)`,
          { replacements: [siteId, JSON.stringify(tags)], transaction },
        );
    });
  }

  /** All of them are written: from here on they come to light, whatever happens meanwhile. */
  async finish({ id, runs }: Pick<StoredImport, 'id' | 'runs'>): Promise<void> {
    await this.sequelize.query(`UPDATE imports SET state = 'landing', runs = ? WHERE id = ?`, {
      replacements: [runs, id],
    });
    await this.land(id);
  }

  /** Brings what has been written to light, some at a time, so that what is handed in meanwhile does not wait. */
  async land(id: string): Promise<void> {
    for (;;) {
      const some = `SELECT id FROM runs WHERE importId = ? AND status = 'removed' LIMIT ${AT_ONCE}`;
      const rows = await this.#select<{ id: string }>(some, [id]);
      if (rows.length === 0) break;
      await this.sequelize.query(
        `UPDATE runs SET status = 'imported' WHERE id IN (SELECT value FROM json_each(?)) AND status = 'removed'`,
        { replacements: [JSON.stringify(rows.map((row) => row.id))] },
      );
    }
    await this.sequelize.query(`UPDATE imports SET state = 'done' WHERE id = ?`, { replacements: [id] });
  }

  /**
   * Takes all runs of a file out of the record again, and what was written beside them; names that no run has any more are
   * forgotten. One that had been brought in stays in the list as undone.
   */
  async takeBack(id: string): Promise<void> {
    const stored = await this.byId(id);
    if (stored === null) return;
    const away =
      stored.state === 'going'
        ? 'DELETE FROM imports WHERE id = ?'
        : `UPDATE imports SET state = 'undone' WHERE id = ?`;
    for (;;) {
      const some = `SELECT id FROM runs WHERE importId = ? LIMIT ${AT_ONCE}`;
      const rows = await this.#select<{ id: string }>(some, [id]);
      if (rows.length === 0) break;
      await this.sequelize.query('DELETE FROM runs WHERE id IN (SELECT value FROM json_each(?))', {
        replacements: [JSON.stringify(rows.map((row) => row.id))],
      });
    }
    await this.sequelize.query(away, { replacements: [id] });
    await this.forgetNames(stored.siteId);
  }

  /** Names that no run of an office has any more are offered no longer. */
  async forgetNames(siteId: string): Promise<void> {
    for (const field of ['device', 'spot', 'peer', 'line'])
      await this.sequelize.query(
        `DELETE FROM run_names WHERE siteId = ? AND field = ? AND name NOT IN
           (SELECT DISTINCT ${field}Name FROM runs WHERE siteId = ? AND ${field}Name IS NOT NULL)`,
        { replacements: [siteId, field, siteId] },
      );
  }

  /** Those that were not through when the program ended. */
  async leftGoing(): Promise<StoredImport[]> {
    return this.#select<StoredImport>(`SELECT * FROM imports WHERE state IN ('going', 'landing')`, []);
  }

  #select<Row extends object>(sql: string, replacements: (string | number)[]): Promise<Row[]> {
    return this.sequelize.query<Row>(sql, { replacements, type: QueryTypes.SELECT });
  }
}
