import { QueryTypes, type Sequelize } from 'sequelize';

/** What lies in the database. Bytes as they are kept, packed. */
export interface KeptInStore {
  readonly runs: number;
  readonly sampledRuns: number;
  readonly sampleBytes: number;
  readonly databaseBytes: number;
  /** Samples of runs since a moment, bytes: what a year brings can be told from them. */
  readonly recentSampleBytes: number;
  readonly oldestSampledMs: number | null;
}

const SAMPLE_DAYS = 'sample-days';

/** How long samples are kept, what that takes, and the thinning of those that are older. */
export class KeepingQueries {
  constructor(private readonly sequelize: Sequelize) {}

  /** Null: for ever; undefined: nobody has said. */
  async sampleDays(): Promise<number | null | undefined> {
    return (await this.setting(SAMPLE_DAYS)) as number | null | undefined;
  }

  async setSampleDays(days: number | null): Promise<void> {
    await this.setSetting(SAMPLE_DAYS, days);
  }

  /** Something that is said once for the whole console; undefined: nobody has. */
  async setting(name: string): Promise<unknown> {
    const [row] = await this.#select<{ value: string }>('SELECT value FROM settings WHERE name = ?', [name]);
    return row === undefined ? undefined : JSON.parse(row.value);
  }

  async setSetting(name: string, value: unknown): Promise<void> {
    await this.sequelize.query(
      'INSERT INTO settings (name, value) VALUES (?, ?) ON CONFLICT (name) DO UPDATE SET value = excluded.value',
      { replacements: [name, JSON.stringify(value)] },
    );
  }

  async kept(recentFromMs: number): Promise<KeptInStore> {
    const [row] = await this.#select<KeptInStore>(
      `SELECT (SELECT COUNT(*) FROM runs WHERE status <> 'removed') AS runs,
         (SELECT COUNT(*) FROM run_samples) AS sampledRuns,
         (SELECT COALESCE(SUM(LENGTH(samples)), 0) FROM run_samples) AS sampleBytes,
         (SELECT page_count * page_size FROM pragma_page_count(), pragma_page_size()) AS databaseBytes,
         (SELECT COALESCE(SUM(LENGTH(samples)), 0) FROM run_samples WHERE runId IN
           (SELECT id FROM runs WHERE startedAtMs >= ?)) AS recentSampleBytes,
         (SELECT MIN(startedAtMs) FROM runs WHERE thinnedAtMs IS NULL AND status = 'finished') AS oldestSampledMs`,
      [recentFromMs],
    );
    return row!;
  }

  /** Deletes the samples of so many runs that began before a moment, the oldest first; their figures stay. Answers how many. */
  async thin(beforeMs: number, atMs: number, limit: number): Promise<number> {
    return this.sequelize.transaction(async (transaction) => {
      const old = await this.sequelize.query<{ id: string }>(
        `SELECT id FROM runs INDEXED BY runs_with_samples WHERE thinnedAtMs IS NULL AND startedAtMs < ?
           AND status IN ('finished', 'unfinished') ORDER BY startedAtMs LIMIT ?`,
        { replacements: [beforeMs, limit], type: QueryTypes.SELECT, transaction },
      );
      if (old.length === 0) return 0;
      const ids = JSON.stringify(old.map(({ id }) => id));
      const these = 'IN (SELECT value FROM json_each(?))';
      await this.sequelize.query(`DELETE FROM run_samples WHERE runId ${these}`, { replacements: [ids], transaction });
      await this.sequelize.query(`UPDATE runs SET thinnedAtMs = ? WHERE id ${these}`, {
        replacements: [atMs, ids],
        transaction,
      });
      return old.length;
    });
  }

  #select<Row extends object>(sql: string, replacements: (string | number)[]): Promise<Row[]> {
    return this.sequelize.query<Row>(sql, { replacements, type: QueryTypes.SELECT });
  }
}
