import { open } from 'node:fs/promises';
import { QueryTypes, type Sequelize } from 'sequelize';
import { MIGRATIONS } from './migrations/migrate';
import { StoreFault } from './store-faults';

/** Stands in the header of each of our files ("BSTW"), so that no other program's database is taken for one. */
const APPLICATION_ID = 0x42535457;
const MOST_COMPLAINTS = 5;
const HEADER_BYTES = 100;
/** Up to this size, bytes, a file is looked at wholly when it is opened: some seconds. A year of many agents has thirty times as much. */
const WHOLE_UP_TO = 1e9;
/** What grows without end, table by table. In a large file the nightly copy looks at it, and `npm run check`. */
const GROWING = ['runs', 'run_samples', 'lane_minutes', 'lane_sums'];

async function pragma(sequelize: Sequelize, text: string): Promise<unknown[]> {
  const rows = await sequelize.query<Record<string, unknown>>(`PRAGMA ${text}`, { type: QueryTypes.SELECT });
  return rows.map((row) => Object.values(row)[0]);
}

async function tableNames(sequelize: Sequelize): Promise<string[]> {
  const rows = await sequelize.query<{ name: string }>("SELECT name FROM sqlite_master WHERE type = 'table'", {
    type: QueryTypes.SELECT,
  });
  return rows.map(({ name }) => name);
}

/** Names of migrations that this version does not have: the file was used by a newer one. */
async function unknownMigrations(sequelize: Sequelize): Promise<string[]> {
  const rows = await sequelize.query<{ name: string }>('SELECT name FROM SequelizeMeta', { type: QueryTypes.SELECT });
  const known = new Set(MIGRATIONS.map(({ name }) => name));
  return rows.map(({ name }) => name).filter((name) => !known.has(name));
}

/** Whether less of a file is there than its header says (SQLite file format, 1.3.7): a copy that was broken off. */
async function isCutShort(sequelize: Sequelize): Promise<boolean> {
  const [{ file }] = (await sequelize.query('PRAGMA database_list', { type: QueryTypes.SELECT })) as [{ file: string }];
  const handle = await open(file);
  try {
    const { buffer: head } = await handle.read(Buffer.alloc(HEADER_BYTES), 0, HEADER_BYTES, 0);
    // A page of 65 536 bytes is written as 1.
    const pageBytes = head.readUInt16BE(16) === 1 ? 65_536 : head.readUInt16BE(16);
    return head.readUInt32BE(28) * pageBytes > (await handle.stat()).size;
  } finally {
    await handle.close();
  }
}

/** What is wrong with a file, as far as it is looked at when it is opened; none, or "ok": nothing. */
async function quickly(sequelize: Sequelize, wholeUpTo: number): Promise<unknown[]> {
  const [pages, pageBytes] = [await pragma(sequelize, 'page_count'), await pragma(sequelize, 'page_size')];
  if (Number(pages[0]) * Number(pageBytes[0]) <= wholeUpTo) return pragma(sequelize, 'quick_check');
  const complaints: unknown[] = (await isCutShort(sequelize)) ? ['the file ends before its last page'] : [];
  for (const name of await tableNames(sequelize)) {
    if (GROWING.includes(name) || name.startsWith('sqlite_')) continue;
    complaints.push(...(await pragma(sequelize, `quick_check("${name.replaceAll('"', '""')}")`)));
  }
  return complaints.filter((complaint) => complaint !== 'ok');
}

/** SQLite says of a file that is no database, or a broken one, so in its message. */
function isDamage(error: unknown): boolean {
  return /SQLITE_(CORRUPT|NOTADB)|malformed|not a database/.test(String(error));
}

/**
 * Looks at a file before anything is done with it: whether it is whole (`quick_check`; `thorough`: `integrity_check`), ours, and not of a
 * newer version. Of a large one that is opened, the tables that do not grow without end. An empty file is new. Throws StoreFault.
 */
export async function inspect(
  sequelize: Sequelize,
  thorough = false,
  wholeUpTo = WHOLE_UP_TO,
): Promise<'new' | 'known'> {
  try {
    const complaints = thorough ? await pragma(sequelize, 'integrity_check') : await quickly(sequelize, wholeUpTo);
    if (complaints.length > 0 && complaints[0] !== 'ok')
      throw new StoreFault('store-damaged', complaints.slice(0, MOST_COMPLAINTS).join('; '));
    const tables = await tableNames(sequelize);
    const [applicationId] = await pragma(sequelize, 'application_id');
    if (applicationId !== APPLICATION_ID && applicationId !== 0)
      throw new StoreFault('store-foreign', `application id ${String(applicationId)}`);
    if (tables.length === 0) return 'new';
    if (!tables.includes('SequelizeMeta') || !tables.includes('sites'))
      throw new StoreFault('store-foreign', `it holds ${tables.slice(0, MOST_COMPLAINTS).join(', ')}`);
    const [userVersion] = await pragma(sequelize, 'user_version');
    const unknown = await unknownMigrations(sequelize);
    if (unknown.length > 0 || Number(userVersion) > MIGRATIONS.length)
      throw new StoreFault('store-newer', unknown.join(', ') || `version ${String(userVersion)}`);
    return 'known';
  } catch (error) {
    if (!(error instanceof StoreFault) && isDamage(error)) throw new StoreFault('store-damaged', String(error));
    throw error;
  }
}

/** Writes into the header whose file it is and how far its schema is. */
export async function mark(sequelize: Sequelize): Promise<void> {
  const [[applicationId], [userVersion]] = [
    await pragma(sequelize, 'application_id'),
    await pragma(sequelize, 'user_version'),
  ];
  if (applicationId === APPLICATION_ID && userVersion === MIGRATIONS.length) return;
  await sequelize.query(`PRAGMA application_id = ${APPLICATION_ID}`);
  await sequelize.query(`PRAGMA user_version = ${MIGRATIONS.length}`);
}
