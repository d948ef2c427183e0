import { QueryTypes, Sequelize } from 'sequelize';
import { fromOne, rowsAsOne } from './rows-as-one';

const COLUMNS = ['id', 'startedAtMs', 'practice', 'downBps', 'brief', 'told'] as const;

interface Row {
  readonly id: string;
  readonly brief: object | null;
}

describe('rows that come as one text', () => {
  const sequelize = new Sequelize({ dialect: 'sqlite', storage: ':memory:', logging: false });
  const whole = { addedDownMs: 12.5, addedUpMs: null, flags: ['noisy', 'a "quoted" one'], spare: { deep: [1] } };
  beforeAll(async () => {
    await sequelize.query('CREATE TABLE runs (id, startedAtMs, practice, downBps, brief, told)');
    const insert = (values: readonly unknown[]) =>
      sequelize.query('INSERT INTO runs VALUES (?, ?, ?, ?, ?, ?)', { replacements: [...values] });
    await insert(['late “run”', 30, 0, 1.5e9, JSON.stringify(whole), '["copies"]']);
    await insert(['early, {run}', 10, 1, null, null, '[]']);
    await insert(['Übungsraum\n', 20, null, 0.1, '{}', '[]']);
  });
  afterAll(() => sequelize.close());

  const read = async () => {
    const [found] = await sequelize.query<{ found: string }>(`SELECT ${rowsAsOne(COLUMNS)} AS found FROM runs`, {
      type: QueryTypes.SELECT,
    });
    return fromOne<Row>(COLUMNS, found!.found);
  };

  it('are what they were: text, truths, figures, nothing, and documents', async () => {
    expect(await read()).toEqual([
      { id: 'early, {run}', startedAtMs: 10, practice: true, downBps: null, brief: null, told: [] },
      { id: 'Übungsraum\n', startedAtMs: 20, practice: null, downBps: 0.1, brief: {}, told: [] },
      { id: 'late “run”', startedAtMs: 30, practice: false, downBps: 1.5e9, brief: whole, told: ['copies'] },
    ]);
  });

  it('are an empty list where there are none', async () => {
    const [found] = await sequelize.query<{ found: string }>(
      `SELECT ${rowsAsOne(COLUMNS)} AS found FROM runs WHERE 0`,
      {
        type: QueryTypes.SELECT,
      },
    );
    expect(fromOne(COLUMNS, found!.found)).toEqual([]);
  });
});
