import { parse } from 'csv-parse/sync';
import { EXPORTED_COLUMNS, exportedRunSchema, type ExportFormat } from '@/wire';
import {
  furnish,
  GOOD_LINE,
  measured,
  openTestConsole,
  orderFor,
  type TestConsole,
} from '../console/console-for-tests';
import { noteRuns, tagRuns } from '../runs';
import { exportedRuns } from './exported-runs';
import type { LedgerQuery } from './ledger';

describe('runs that leave the console as a file', () => {
  let console: TestConsole;
  let siteId: string;
  let code: string;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId, code } = await furnish(console));
  });
  afterEach(() => console.close());

  async function fileOf(format: ExportFormat, query: LedgerQuery & { runIds?: string[] } = {}) {
    const file = await exportedRuns(console.context, query, format);
    if (!file.ok) throw new Error(file.fault.code);
    const parts: string[] = [];
    for await (const part of file.value.parts) parts.push(part);
    return { text: parts.join(''), parts, name: file.value.name };
  }
  const rowsOf = (text: string) => parse<Record<string, string>>(text, { columns: true, record_delimiter: '\r\n' });

  it('are the same runs in each format, units in the names, what was not measured left blank', async () => {
    const { runId } = await measured(console, orderFor(code), GOOD_LINE);
    await tagRuns(console.context, { siteId, runIds: [runId], tag: 'evening', on: true });
    const { text, name } = await fileOf('csv');
    expect(name).toMatch(/^[A-Za-z-]+-2026-11-24\.csv$/);
    const [row, ...others] = rowsOf(text);
    expect(others).toEqual([]);
    expect(Object.keys(row!)).toEqual([...EXPORTED_COLUMNS]);
    const run = (await console.context.store.runs.byId(runId))!;
    expect(Number(row!['down_mbps'])).toBeCloseTo(run.downBps! / 1e6, 3);
    expect(row).toMatchObject({
      id: runId,
      state: 'finished',
      practice_line: 'yes',
      loss_percent: '',
      tags: 'evening',
    });
    expect(row!['started_at']).toBe(new Date(run.startedAtMs).toISOString());

    const [json] = JSON.parse((await fileOf('json')).text) as unknown[];
    const line = JSON.parse((await fileOf('ndjson')).text.trim()) as unknown;
    expect(json).toEqual(line);
    expect(exportedRunSchema.parse(json)).toMatchObject({ id: runId, tags: ['evening'], loss_percent: null });
    // What a figure is does not hang on the format.
    expect(Number(row!['idle_ms'])).toBe((json as { idle_ms: number }).idle_ms);
  });

  it('hold no live formula, and every sign of a name and a note comes back', async () => {
    const names = ['=HYPERLINK("x")', '+1', '-2', '@cmd', 'plain, with "quotes"', 'two\r\nlines', 'Übungsraum \u202e'];
    for (const deviceName of names.slice(0, 5)) await measured(console, orderFor(code, { deviceName }));
    const { runId } = await measured(console, orderFor(code, { deviceName: 'noted' }));
    await noteRuns(console.context, { siteId, runIds: [runId], note: names[5]! });
    const { text } = await fileOf('csv');
    for (const row of rowsOf(text)) for (const cell of Object.values(row)) expect(cell).not.toMatch(/^[=+\-@\t\r]/);
    const devices = rowsOf(text).map(({ device }) => device!.replace(/^'/, ''));
    expect(new Set(devices)).toEqual(new Set([...names.slice(0, 5), 'noted']));
    expect(rowsOf(text).find(({ device }) => device === 'noted')!['notes']).toBe(names[5]);
    // JSON needs no such guard, and has none.
    const json = JSON.parse((await fileOf('json')).text) as { device: string }[];
    expect(json.map(({ device }) => device)).toContain('=HYPERLINK("x")');
  });

  it('are those that match or were chosen, and a file with none is whole too', async () => {
    const one = await measured(console, orderFor(code, { deviceName: 'A' }));
    await measured(console, orderFor(code, { deviceName: 'B' }));
    expect(rowsOf((await fileOf('csv', { query: 'device=B' })).text)).toMatchObject([{ device: 'B' }]);
    expect(rowsOf((await fileOf('csv', { runIds: [one.runId, 'nobody'] })).text)).toMatchObject([{ device: 'A' }]);
    const none = { query: 'device=nobody' };
    expect((await fileOf('csv', none)).text).toBe(`${EXPORTED_COLUMNS.join(',')}\r\n`);
    expect(JSON.parse((await fileOf('json', none)).text)).toEqual([]);
    expect((await fileOf('ndjson', none)).text).toBe('');
    expect(await exportedRuns(console.context, { siteId: 'none' }, 'csv')).toMatchObject({
      fault: { code: 'site-missing' },
    });
  });

  it('come a part at a time, each run once, however many have one start', async () => {
    const { runId } = await measured(console, orderFor(code));
    const run = (await console.context.store.runs.byId(runId))!;
    await console.context.store.runs.takeIn(
      Array.from({ length: 2400 }, (_, index) => ({
        ...{
          run: { ...run, id: `run-${index}`, startedAtMs: run.startedAtMs - Math.floor(index / 700) },
          samples: null,
        },
      })),
    );
    const { text, parts } = await fileOf('csv');
    expect(parts).toHaveLength(4);
    expect(new Set(rowsOf(text).map(({ id }) => id)).size).toBe(2401);
    expect(rowsOf(text)).toHaveLength(2401);
    const json = JSON.parse((await fileOf('json')).text) as unknown[];
    expect(json).toHaveLength(2401);
  });
});
