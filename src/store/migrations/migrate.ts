import { existsSync } from 'node:fs';
import { QueryTypes, type Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { firstTables } from './0001-first-tables';
import { access } from './0002-access';
import { turns } from './0003-turns';
import { conditions } from './0004-conditions';
import { apiTokens } from './0005-api-tokens';
import { removals } from './0006-removals';
import { office } from './0007-office';
import { quickLists } from './0008-quick-lists';
import { evidence } from './0009-evidence';
import { people } from './0010-people';
import { findings } from './0011-findings';
import { timeZone } from './0012-time-zone';
import { runChanges } from './0013-run-changes';
import { ledger } from './0014-ledger';
import { comparisons } from './0015-comparisons';
import { cases } from './0016-cases';
import { keeping } from './0017-keeping';
import { imports } from './0018-imports';
import { quickEvidence } from './0019-quick-evidence';
import { alternations } from './0020-alternations';
import { turnPeer } from './0021-turn-peer';
import { agents } from './0022-agents';
import { alarms } from './0023-alarms';
import { quickWeeks } from './0024-quick-weeks';
import { neighbours } from './0025-neighbours';
import { looks } from './0026-looks';
import { lanes } from './0027-lanes';
import { overTime } from './0028-over-time';
import { farEnds } from './0029-far-ends';
import { between } from './0030-between';
import { siteVersions } from './0031-site-versions';
import { finishedSiteVersions } from './0032-finished-site-versions';
import { lossByWay } from './0033-loss-by-way';
import { lineUse } from './0034-line-use';
import { quickOffices } from './0035-quick-offices';
import type { Migration } from './migration';

export const MIGRATIONS: readonly Migration[] = [
  ...[firstTables, access, turns, conditions, apiTokens, removals, office, quickLists, evidence, people],
  ...[findings, timeZone, runChanges, ledger, comparisons, cases, keeping, imports, quickEvidence, alternations],
  ...[turnPeer, agents, alarms, quickWeeks, neighbours, looks, lanes, overTime, farEnds],
  ...[between, siteVersions, finishedSiteVersions, lossByWay, lineUse, quickOffices],
];

/**
 * Brings the schema up to date. A file that already holds tables is first copied beside itself
 * (`VACUUM INTO`, a consistent copy), named after the migration that follows.
 */
export async function migrate(sequelize: Sequelize, file: string, migrations = MIGRATIONS): Promise<void> {
  const umzug = new Umzug({
    migrations: migrations.map(({ name, statements }) => ({
      name,
      up: () =>
        sequelize.transaction(async (transaction) => {
          for (const statement of statements) await sequelize.query(statement, { transaction });
        }),
    })),
    storage: new SequelizeStorage({ sequelize }),
    logger: undefined,
  });
  const pending = await umzug.pending();
  const first = pending[0];
  if (first === undefined) return;
  const tables = await sequelize.query("SELECT name FROM sqlite_master WHERE type = 'table' AND name = 'sites'", {
    type: QueryTypes.SELECT,
  });
  const copy = `${file}.before-${first.name}`;
  if (tables.length > 0 && !existsSync(copy)) await sequelize.query('VACUUM INTO :copy', { replacements: { copy } });
  await umzug.up();
}
