import { mkdtempSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { QueryTypes } from 'sequelize';
import { checkStore, openStore, StoreFault } from '.';
import { inspect } from './inspect';
import { openRaw } from './raw-sqlite';

const APPLICATION_ID = 0x42535457;

describe('a database file, before anything is done with it', () => {
  let folder: string;
  let file: string;
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'bent-straw-store-'));
    file = join(folder, 'bent-straw.sqlite');
  });
  afterEach(() => rmSync(folder, { recursive: true }));

  const run = async (...statements: string[]) => {
    const raw = openRaw(file);
    for (const statement of statements) await raw.query(statement);
    await raw.close();
  };
  const pragma = async (name: string) => {
    const raw = openRaw(file);
    const [row] = await raw.query<Record<string, number>>(`PRAGMA ${name}`, { type: QueryTypes.SELECT });
    await raw.close();
    return Object.values(row!)[0];
  };
  const ours = async () => {
    await (await openStore(file)).close();
    // Everything into the one file, as after an ordinary end.
    await run('PRAGMA wal_checkpoint(TRUNCATE)');
  };
  /** What opening says; the file must be untouched by it. */
  const refusal = async () => {
    const before = readFileSync(file);
    const error: unknown = await openStore(file).then(
      (store) => store.close(),
      (failure: unknown) => failure,
    );
    expect(readFileSync(file).equals(before)).toBe(true);
    return error instanceof StoreFault ? error.code : error;
  };

  it('is made and marked as ours when it is not there, and opened again', async () => {
    await ours();
    expect(await pragma('application_id')).toBe(APPLICATION_ID);
    expect(await pragma('user_version')).toBeGreaterThan(0);
    await ours();
    expect(await checkStore(file)).toEqual({ dangling: [], samplesWithoutRun: 0, runsWithoutSamples: 0, runs: 0 });
  });

  it('of an earlier version, which was not marked yet, is opened and marked', async () => {
    await ours();
    await run('PRAGMA application_id = 0', 'PRAGMA user_version = 0');
    await ours();
    expect(await pragma('application_id')).toBe(APPLICATION_ID);
  });

  it('that is cut short, or has a page of rubbish in it, is refused as damaged and left alone', async () => {
    await ours();
    const whole = readFileSync(file);
    truncateSync(file, Math.floor(whole.length / 2));
    expect(await refusal()).toBe('store-damaged');
    writeFileSync(file, Buffer.concat([whole.subarray(0, 4096), Buffer.alloc(4096, 0x5a), whole.subarray(8192)]));
    expect(await refusal()).toBe('store-damaged');
    await expect(checkStore(file)).rejects.toMatchObject({ code: 'store-damaged' });
  });

  it('that is large is looked at without what grows in it, so that it opens in seconds: the rest is found damaged all the same', async () => {
    await ours();
    const looked = async () => {
      const raw = openRaw(file);
      const found = await inspect(raw, false, 0).catch((error: unknown) => error);
      await raw.close();
      return found instanceof StoreFault ? found.code : found;
    };
    expect(await looked()).toBe('known');
    const rubbish = async (table: string) => {
      const raw = openRaw(file);
      const [row] = await raw.query<{ rootpage: number }>('SELECT rootpage FROM sqlite_master WHERE name = ?', {
        ...{ replacements: [table], type: QueryTypes.SELECT },
      });
      await raw.close();
      const whole = readFileSync(file);
      const at = (row!.rootpage - 1) * 4096;
      writeFileSync(file, Buffer.concat([whole.subarray(0, at), Buffer.alloc(4096, 0x5a), whole.subarray(at + 4096)]));
      return whole;
    };
    const whole = await rubbish('devices');
    expect(await looked()).toBe('store-damaged');
    writeFileSync(file, whole);
    await rubbish('runs');
    expect(await looked()).toBe('known');
    writeFileSync(file, whole);
    truncateSync(file, whole.length - 4096);
    expect(await looked()).toBe('store-damaged');
    writeFileSync(file, whole);
    await rubbish('runs');
    // What looks at all of it, such as each night's copy, finds that too.
    await expect(checkStore(file)).rejects.toMatchObject({ code: 'store-damaged' });
  });

  it('that is no database at all is refused as damaged', async () => {
    writeFileSync(file, 'Larkspur Bindery, minutes of the meeting\n'.repeat(200));
    expect(await refusal()).toBe('store-damaged');
  });

  it('of another program is refused, by its tables or its mark, and keeps even its settings', async () => {
    await run('CREATE TABLE invoices (id INTEGER)');
    expect(await refusal()).toBe('store-foreign');
    rmSync(file);
    await run('PRAGMA application_id = 12345', 'CREATE TABLE sites (id INTEGER)');
    expect(await refusal()).toBe('store-foreign');
  });

  it('that a newer version wrote is refused, by its migrations or its number', async () => {
    await ours();
    await run("INSERT INTO SequelizeMeta (name) VALUES ('0999-later')");
    expect(await refusal()).toBe('store-newer');
    await run("DELETE FROM SequelizeMeta WHERE name = '0999-later'", 'PRAGMA user_version = 999');
    expect(await refusal()).toBe('store-newer');
  });

  it('of a version before is looked at as well: a copy of it must be able to be put back', async () => {
    await ours();
    await run('DROP INDEX runs_with_samples', 'ALTER TABLE runs DROP COLUMN thinnedAtMs');
    expect(await checkStore(file)).toMatchObject({ runs: 0, runsWithoutSamples: 0 });
  });

  it('tells what in it hangs loose', async () => {
    await ours();
    await run('PRAGMA foreign_keys = OFF', "INSERT INTO run_samples (runId, samples) VALUES ('gone', x'00')");
    expect(await checkStore(file)).toMatchObject({
      samplesWithoutRun: 1,
      dangling: [{ table: 'run_samples', count: 1 }],
    });
  });
});
