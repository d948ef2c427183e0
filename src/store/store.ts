import { Sequelize } from 'sequelize';
import { inspect, mark } from './inspect';
import { migrate } from './migrations/migrate';
import { defineTables, type Tables } from './models/tables';
import { AccessQueries } from './queries/access-queries';
import { AuditQueries } from './queries/audit-queries';
import { RemovalQueries } from './queries/removal-queries';
import { RunQueries } from './queries/run-queries';
import { openRaw } from './raw-sqlite';
import { SiteQueries } from './queries/site-queries';
import { TurnQueries } from './queries/turn-queries';
import { sqliteWithSettings } from './sqlite-dialect';

/** The one place that knows SQL. Opened by the console alone, which is the only writer. */
export interface Store {
  readonly access: AccessQueries;
  readonly audit: AuditQueries;
  readonly sites: SiteQueries;
  readonly removals: RemovalQueries;
  readonly runs: RunQueries;
  readonly turns: TurnQueries;
  close(): Promise<void>;
}

/**
 * Opens (and if needed makes) the database file and brings its schema up to date. A file that is damaged, of another
 * program or of a newer version is left as it is: throws StoreFault.
 */
export async function openStore(file: string): Promise<Store> {
  const raw = openRaw(file);
  await inspect(raw).finally(() => raw.close());
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    dialectModule: sqliteWithSettings,
    storage: file,
    logging: false,
  });
  try {
    await migrate(sequelize, file);
    await mark(sequelize);
  } catch (error) {
    await sequelize.close();
    throw error;
  }
  const tables: Tables = defineTables(sequelize);
  return {
    access: new AccessQueries(tables),
    audit: new AuditQueries(tables),
    sites: new SiteQueries(tables),
    removals: new RemovalQueries(sequelize, tables),
    runs: new RunQueries(sequelize, tables),
    turns: new TurnQueries(tables),
    close: () => sequelize.close(),
  };
}
