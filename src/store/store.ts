import { Sequelize, Transaction } from 'sequelize';
import { inspect, mark } from './inspect';
import { nameErrors } from './named-errors';
import { oneWriter } from './one-writer';
import { migrate } from './migrations/migrate';
import { defineTables, type Tables } from './models/tables';
import { AccessQueries } from './queries/access-queries';
import { AgentQueries } from './queries/agent-queries';
import { AirQueries } from './queries/air-queries';
import { AlarmQueries } from './queries/alarm-queries';
import { ScheduleQueries } from './queries/schedule-queries';
import { AlternationQueries } from './queries/alternation-queries';
import { AuditQueries } from './queries/audit-queries';
import { CaseQueries } from './queries/case-queries';
import { ComparisonQueries } from './queries/comparison-queries';
import { ExportQueries } from './queries/export-queries';
import { FindingQueries } from './queries/finding-queries';
import { ImportQueries } from './queries/import-queries';
import { KeepingQueries } from './queries/keeping-queries';
import { LaneQueries } from './queries/lane-queries';
import { LookQueries } from './queries/look-queries';
import { LedgerQueries } from './queries/ledger-queries';
import { RemovalQueries } from './queries/removal-queries';
import { EvidenceQueries } from './queries/evidence-queries';
import { RunQueries } from './queries/run-queries';
import { openRaw } from './raw-sqlite';
import { SiteQueries } from './queries/site-queries';
import { TimeQueries } from './queries/time-queries';
import { TurnQueries } from './queries/turn-queries';
import { WatchedRunQueries } from './queries/watched-run-queries';
import { spareConnection } from './spare-connection';

/** What was looked for or written may be secret: only the shape of a statement is told. */
const withoutValues = (sql: string) => sql.replace(/'(?:[^']|'')*'/g, "'…'").slice(0, 2000);

/** The one place that knows SQL. Opened by the console alone, which is the only writer. */
export interface Store {
  readonly access: AccessQueries;
  readonly audit: AuditQueries;
  readonly sites: SiteQueries;
  readonly removals: RemovalQueries;
  readonly runs: RunQueries;
  readonly evidence: EvidenceQueries;
  readonly ledger: LedgerQueries;
  readonly cases: CaseQueries;
  readonly alternations: AlternationQueries;
  readonly agents: AgentQueries;
  readonly air: AirQueries;
  readonly alarms: AlarmQueries;
  readonly schedules: ScheduleQueries;
  readonly looks: LookQueries;
  readonly lanes: LaneQueries;
  readonly comparisons: ComparisonQueries;
  readonly exports: ExportQueries;
  readonly imports: ImportQueries;
  readonly time: TimeQueries;
  readonly keeping: KeepingQueries;
  readonly turns: TurnQueries;
  readonly watchedRuns: WatchedRunQueries;
  readonly findings: FindingQueries;
  close(): Promise<void>;
}

/**
 * Opens (and if needed makes) the database file and brings its schema up to date. A file that is damaged, of another
 * program or of a newer version is left as it is: throws StoreFault. `onSql`: hears of each statement, without its values.
 */
export async function openStore(file: string, onSql?: (sql: string, tookMs: number) => void): Promise<Store> {
  const raw = openRaw(file);
  try {
    await inspect(raw);
  } finally {
    await raw.close();
  }
  const connections = spareConnection();
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    dialectModule: connections.module,
    storage: file,
    // Each writes. One that only reads at first is refused at its first write when another has written meanwhile.
    transactionType: Transaction.TYPES.IMMEDIATE,
    ...(onSql === undefined
      ? { logging: false }
      : { logging: (sql: string, tookMs?: number) => onSql(withoutValues(sql), tookMs ?? 0), benchmark: true }),
  });
  nameErrors(sequelize);
  oneWriter(sequelize);
  const close = async () => {
    await connections.release();
    await sequelize.close();
  };
  try {
    await migrate(sequelize, file);
    await mark(sequelize);
  } catch (error) {
    await close();
    throw error;
  }
  const tables: Tables = defineTables(sequelize);
  const runs = new RunQueries(sequelize, tables);
  const ledger = new LedgerQueries(sequelize, runs);
  return {
    access: new AccessQueries(tables),
    audit: new AuditQueries(tables),
    sites: new SiteQueries(tables),
    removals: new RemovalQueries(sequelize, tables),
    runs,
    evidence: new EvidenceQueries(sequelize, runs),
    ledger,
    exports: new ExportQueries(sequelize, ledger),
    imports: new ImportQueries(sequelize),
    cases: new CaseQueries(sequelize, tables),
    alternations: new AlternationQueries(sequelize),
    agents: new AgentQueries(sequelize),
    air: new AirQueries(sequelize),
    alarms: new AlarmQueries(sequelize),
    schedules: new ScheduleQueries(sequelize),
    looks: new LookQueries(sequelize),
    lanes: new LaneQueries(sequelize),
    comparisons: new ComparisonQueries(sequelize, tables, ledger),
    time: new TimeQueries(sequelize),
    keeping: new KeepingQueries(sequelize),
    turns: new TurnQueries(tables),
    watchedRuns: new WatchedRunQueries(sequelize),
    findings: new FindingQueries(tables),
    close,
  };
}
