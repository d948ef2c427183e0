import { QueryTypes, type Sequelize } from 'sequelize';
import { inspect } from './inspect';
import { openRaw } from './raw-sqlite';

/** What a look into a database file found. */
export interface StoreCheck {
  /** Rows that point to rows that are not there: table and how many. */
  readonly dangling: readonly { readonly table: string; readonly count: number }[];
  /** Samples without their run, and finished runs without their samples. */
  readonly samplesWithoutRun: number;
  readonly runsWithoutSamples: number;
  readonly runs: number;
}

async function count(sequelize: Sequelize, sql: string): Promise<number> {
  const [row] = await sequelize.query<{ count: number }>(`SELECT COUNT(*) AS count FROM ${sql}`, {
    type: QueryTypes.SELECT,
  });
  return row!.count;
}

/**
 * Looks whether a file is whole and ours, and what in it hangs loose. Changes nothing, and may be done while a console
 * has it open. Throws StoreFault for a damaged, foreign or newer file.
 */
export async function checkStore(file: string): Promise<StoreCheck> {
  const sequelize = openRaw(file);
  try {
    await inspect(sequelize, true);
    const rows = await sequelize.query<{ table: string }>('PRAGMA foreign_key_check', { type: QueryTypes.SELECT });
    const tables = new Map<string, number>();
    for (const { table } of rows) tables.set(table, (tables.get(table) ?? 0) + 1);
    // A copy of an older version knows of no thinning: all its samples are to be there.
    const canThin = (await count(sequelize, "pragma_table_info('runs') WHERE name = 'thinnedAtMs'")) > 0;
    const unthinned = canThin ? 'AND thinnedAtMs IS NULL' : '';
    return {
      dangling: [...tables].map(([table, found]) => ({ table, count: found })),
      samplesWithoutRun: await count(sequelize, 'run_samples WHERE runId NOT IN (SELECT id FROM runs)'),
      runsWithoutSamples: await count(
        sequelize,
        `runs WHERE status = 'finished' ${unthinned} AND id NOT IN (SELECT runId FROM run_samples)`,
      ),
      runs: await count(sequelize, 'runs'),
    };
  } finally {
    await sequelize.close();
  }
}

/**
 * Copies a database into a new file, whole and consistent, also while a console writes to it (`VACUUM INTO`), and looks
 * at the copy afterwards. Throws StoreFault; the file must not exist.
 */
export async function copyStore(from: string, to: string): Promise<StoreCheck> {
  const sequelize = openRaw(from);
  try {
    await inspect(sequelize);
    await sequelize.query('VACUUM INTO :to', { replacements: { to } });
  } finally {
    await sequelize.close();
  }
  return checkStore(to);
}
