import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { QueryTypes, Sequelize, Transaction } from 'sequelize';
import { spareConnection, type SpareConnection } from './spare-connection';

describe('the connection of a transaction', () => {
  let folder: string;
  let connections: SpareConnection;
  let sequelize: Sequelize;
  let opened: number;
  beforeEach(async () => {
    folder = mkdtempSync(join(tmpdir(), 'bent-straw-spare-'));
    connections = spareConnection();
    opened = 0;
    isClosed = false;
    const seen = new WeakSet<object>();
    const { Database } = connections.module;
    const counting = function (...words: ConstructorParameters<typeof Database>) {
      const database = new Database(...words);
      if (!seen.has(database)) opened += 1;
      seen.add(database);
      return database;
    };
    sequelize = new Sequelize({
      ...{ dialect: 'sqlite', storage: join(folder, 'store.sqlite'), logging: false },
      dialectModule: { ...connections.module, Database: counting },
      transactionType: Transaction.TYPES.IMMEDIATE,
    });
    await sequelize.query('CREATE TABLE things (name TEXT UNIQUE)');
  });
  const close = async () => {
    await connections.release();
    await sequelize.close();
  };
  let isClosed: boolean;
  afterEach(async () => {
    if (!isClosed) await close();
    rmSync(folder, { recursive: true });
  });

  const add = (name: string, before: (transaction: Transaction) => Promise<unknown> = () => Promise.resolve()) =>
    sequelize.transaction(async (transaction) => {
      await sequelize.query('INSERT INTO things VALUES (?)', { transaction, replacements: [name] });
      await before(transaction);
    });
  const names = async () =>
    (await sequelize.query<{ name: string }>('SELECT name FROM things', { type: QueryTypes.SELECT })).map(
      ({ name }) => name,
    );

  it('is opened once, beside the one for all else', async () => {
    for (const name of ['a', 'b', 'c']) await add(name);
    expect(await names()).toEqual(['a', 'b', 'c']);
    expect(opened).toBe(2);
  });

  it('serves the next one after one that was taken back, of which nothing stays', async () => {
    await expect(add('a', () => Promise.reject(new Error('thought better of it')))).rejects.toThrow('thought better');
    await add('b');
    await expect(add('b')).rejects.toThrow('Validation error');
    await add('c');
    expect(await names()).toEqual(['b', 'c']);
    expect(opened).toBe(2);
  });

  it('is free for the next one also when its transaction could not be committed: that is taken back', async () => {
    await sequelize.query('CREATE TABLE parts (thing TEXT REFERENCES things (name) DEFERRABLE INITIALLY DEFERRED)');
    // What is broken is seen at the end only.
    const broken = (transaction: Transaction) =>
      sequelize.query("INSERT INTO parts VALUES ('nothing')", { transaction });
    await expect(add('a', broken)).rejects.toThrow('FOREIGN KEY');
    await add('b');
    expect(await names()).toEqual(['b']);
  });

  it('is not shared by two at a time', async () => {
    let go = () => undefined as void;
    const held = new Promise<void>((resolve) => (go = resolve));
    const reading = sequelize.transaction({ type: Transaction.TYPES.DEFERRED }, async (transaction) => {
      await sequelize.query('SELECT * FROM things', { transaction });
      await held;
      return sequelize.query('SELECT count(*) AS many FROM things', { transaction, type: QueryTypes.SELECT });
    });
    await add('a');
    go();
    // It sees what was there when it began.
    expect(await reading).toEqual([{ many: 0 }]);
    expect(opened).toBe(3);
  });

  it('is closed with the store', async () => {
    await add('a');
    await close();
    isClosed = true;
    const { Database, OPEN_READWRITE } = connections.module;
    const alone = await new Promise<InstanceType<typeof Database>>((resolve, reject) => {
      const one = new Database(join(folder, 'store.sqlite'), OPEN_READWRITE, (error) =>
        error === null ? resolve(one) : reject(error),
      );
    });
    // Only whoever is alone with a file gets it for itself.
    await promisify<string, void>(alone.exec.bind(alone) as never)(
      'PRAGMA locking_mode = EXCLUSIVE; PRAGMA journal_mode = DELETE',
    );
    await promisify(alone.close.bind(alone))();
  });
});
