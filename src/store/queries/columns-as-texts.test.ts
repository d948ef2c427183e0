import { QueryTypes, Sequelize } from 'sequelize';
import {
  columnsAsTexts,
  columnsOf,
  inParts,
  PART_ROWS,
  pickedFrom,
  type ColumnNames,
  type ColumnTexts,
  type RowPlace,
} from './columns-as-texts';

const NAMES: ColumnNames = {
  ...{ texts: ['id', 'name'], numbers: ['startedAtMs', 'downBps'], documents: ['link'], lists: ['brief'] },
};
/** Names that people give and that programs trip over. */
const NAME = 'Übungs"raum"\n\u0001\u001f, [x]';

describe('columns that come as texts', () => {
  const sequelize = new Sequelize({ dialect: 'sqlite', storage: ':memory:', logging: false });
  beforeAll(async () => {
    await sequelize.query('CREATE TABLE runs (id, name, startedAtMs, downBps, link, brief)');
    const insert = (values: readonly unknown[]) =>
      sequelize.query('INSERT INTO runs VALUES (?, ?, ?, ?, ?, ?)', { replacements: [...values] });
    const link = JSON.stringify({ medium: 'wired', note: NAME });
    await insert(['late', NAME, 30, 1.5e9, link, JSON.stringify({ flags: ['noisy', 'a "quoted" one'], ms: 12.5 })]);
    await insert(['early', null, 10, null, link, null]);
    await insert(['', '', 20, 0.1, null, '{}']);
  });
  afterAll(() => sequelize.close());

  const read = async (where = '1') => {
    const columns = [
      'id',
      'name',
      'startedAtMs',
      'downBps',
      'link',
      `${pickedFrom('brief', ['ms', 'flags'])} AS brief`,
    ];
    const select = `SELECT ${columns.join(', ')} FROM runs WHERE ${where} ORDER BY startedAtMs`;
    const [came] = await sequelize.query<ColumnTexts>(columnsAsTexts(NAMES, select), { type: QueryTypes.SELECT });
    return columnsOf(came!);
  };

  it('are what they were, in the order of the rows: texts, nothing, figures, documents and what was picked', async () => {
    const { rows, own, shared, documents } = await read();
    expect(rows).toBe(3);
    expect(own('id')).toEqual(['early', '', 'late']);
    expect(shared('name')).toEqual([null, '', NAME]);
    expect(own('startedAtMs')).toEqual([10, 20, 30]);
    expect(own('downBps')).toEqual([null, 0.1, 1.5e9]);
    const link = { medium: 'wired', note: NAME };
    expect(documents('link')).toEqual([link, null, link]);
    expect(own('brief')).toEqual([null, [null, null], [12.5, ['noisy', 'a "quoted" one']]]);
  });

  it('hold a document that several rows have once', async () => {
    const [early, , late] = (await read()).documents('link');
    expect(early).toBe(late);
  });

  it('are empty lists where there is no row', async () => {
    const { rows, own, shared, documents } = await read('0');
    expect([rows, own('id'), shared('name'), documents('link'), own('brief')]).toEqual([0, [], [], [], []]);
  });
});

describe('many rows', () => {
  /** Rows of which many began at the same moment, as the database would answer. */
  const all = (many: number) =>
    Array.from({ length: many }, (_, place) => ({
      startedAtMs: Math.floor(place / 7),
      id: String(place).padStart(6, '0'),
    }));
  const isBehind = (row: RowPlace, after: RowPlace) =>
    row.startedAtMs > after.startedAtMs || (row.startedAtMs === after.startedAtMs && row.id > after.id);
  const asTexts = (rows: readonly RowPlace[]) =>
    ({
      rows: rows.length,
      startedAtMs: JSON.stringify(rows.map(({ startedAtMs }) => startedAtMs)),
      id: JSON.stringify(rows.map(({ id }) => id)),
    }) as unknown as ColumnTexts;
  const begin = { startedAtMs: 0, id: '' };
  const idsOf = (came: ColumnTexts) => columnsOf(came).own<string>('id');

  it.each([0, 1, PART_ROWS - 1, PART_ROWS, PART_ROWS + 1, 3 * PART_ROWS + 5])(
    'come each once and in order, however they part: %i',
    async (many) => {
      const rows = all(many);
      const read = (after: RowPlace) =>
        Promise.resolve(asTexts(rows.filter((row) => isBehind(row, after)).slice(0, PART_ROWS)));
      expect(await inParts(begin, read, idsOf)).toEqual(rows.map(({ id }) => id));
    },
  );

  it('come no further than was asked, and the next part is asked for before one is made into something', async () => {
    const rows = all(5 * PART_ROWS);
    const steps: string[] = [];
    const read = (after: RowPlace) => {
      steps.push('read');
      return Promise.resolve(asTexts(rows.filter((row) => isBehind(row, after)).slice(0, PART_ROWS)));
    };
    const make = (came: ColumnTexts) => {
      steps.push('make');
      return idsOf(came);
    };
    expect(await inParts(begin, read, make, PART_ROWS + 10)).toEqual(rows.slice(0, PART_ROWS + 10).map(({ id }) => id));
    expect(steps).toEqual(['read', 'read', 'make', 'make']);
  });
});
