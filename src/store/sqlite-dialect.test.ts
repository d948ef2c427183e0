import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import type sqlite3 from 'sqlite3';
import { sqliteWithSettings } from './sqlite-dialect';

const WRITE = sqliteWithSettings.OPEN_READWRITE | sqliteWithSettings.OPEN_CREATE;
const ASK = 'PRAGMA table_info(`things`)';

describe('what columns a table has', () => {
  let folder: string;
  /** What reached SQLite itself; told a little later than it was done. */
  let traced: string[];
  const open: sqlite3.Database[] = [];
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'bent-straw-dialect-'));
    traced = [];
  });
  afterEach(async () => {
    for (const each of open.splice(0)) await promisify(each.close.bind(each))();
    rmSync(folder, { recursive: true });
  });

  /** How often it was asked, once each connection has told of a last statement of its own. */
  async function timesAsked(): Promise<number> {
    for (const [place, each] of open.entries()) {
      const mark = `SELECT ${place} AS mark`;
      await promisify<string, unknown>(each.all.bind(each) as never)(mark);
      while (!traced.includes(mark)) await new Promise((resolve) => setImmediate(resolve));
    }
    return traced.filter((sql) => sql.startsWith('PRAGMA table_info')).length;
  }

  async function connection(file = join(folder, 'store.sqlite')) {
    const opened = await new Promise<sqlite3.Database>((resolve, reject) => {
      const database: sqlite3.Database = new sqliteWithSettings.Database(file, WRITE, (error) =>
        error === null ? resolve(database) : reject(error),
      );
    });
    open.push(opened);
    opened.on('trace', (sql: string) => traced.push(sql));
    const all = promisify<string, { name: string }[]>(opened.all.bind(opened) as never);
    return {
      names: async (question = ASK) => (await all(question)).map(({ name }) => name),
      run: promisify<string, void>(opened.run.bind(opened) as never),
      exec: promisify<string, void>(opened.exec.bind(opened) as never),
    };
  }

  it('is asked once, by all connections to the file together', async () => {
    const [one, other] = [await connection(), await connection()];
    await one.run('CREATE TABLE things (id TEXT, size REAL)');
    for (const each of [one, other, one, other]) expect(await each.names()).toEqual(['id', 'size']);
    expect(await timesAsked()).toBe(1);
  });

  it('is asked anew after a change, whichever connection makes it, and not before that holds', async () => {
    const [one, other] = [await connection(), await connection()];
    await one.run('CREATE TABLE things (id TEXT)');
    expect(await one.names()).toEqual(['id']);
    await other.run('BEGIN');
    await other.run('ALTER TABLE things ADD COLUMN size REAL');
    // The first connection does not see it yet; what it hears now must not stay.
    expect(await one.names()).toEqual(['id']);
    await other.run('COMMIT');
    expect(await one.names()).toEqual(['id', 'size']);
    await other.run('BEGIN');
    await other.run('ALTER TABLE things ADD COLUMN kind TEXT');
    await other.run('ROLLBACK');
    expect(await one.names()).toEqual(['id', 'size']);
    await other.exec('ALTER TABLE things ADD COLUMN kind TEXT');
    expect(await one.names()).toEqual(['id', 'size', 'kind']);
  });

  it('is asked each time of a table that is not there, and of what lies in memory', async () => {
    const one = await connection();
    expect(await one.names('PRAGMA table_info(`nothing`)')).toEqual([]);
    expect(await one.names('PRAGMA table_info(`nothing`)')).toEqual([]);
    const [here, there] = [await connection(':memory:'), await connection(':memory:')];
    await here.run('CREATE TABLE things (id TEXT)');
    await there.run('CREATE TABLE things (size REAL)');
    expect([await here.names(), await there.names()]).toEqual([['id'], ['size']]);
    expect(await timesAsked()).toBe(4);
  });
});
