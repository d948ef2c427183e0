import { existsSync, readdirSync } from 'node:fs';
import type { ImportReading } from '@/core';
import { LARGEST_IMPORT } from '@/wire';
import { furnish, measured, openTestConsole, orderFor, type TestConsole } from '../console/console-for-tests';
import { copyPageOf, exportedRuns, ledgerOf, timeSeriesOf, timeSubjectsOf } from '../views';
import { clearImports, closeImport, lookAtImport, openImport, receiveImport, takeIn, undoImport } from './imports';
import { MOST_OPEN_IMPORTS, openImportsOf } from './open-imports';

const HEAD = 'When;Device;Link;Download (Mbit/s);Upload (Mbit/s);Ping ms';
const LINES = [
  '25.11.2026 14:00;Press desk;LAN;93,8;21,5;12',
  '25.11.2026 15:00;Somebody’s phone;5 GHz;210,2;33,1;18',
  '25.11.2026 16:00;press desk;LAN;94,0;21,4;11',
];
const FILE = [HEAD, ...LINES].join('\r\n');

describe('bringing runs in from a file', () => {
  let console: TestConsole;
  let siteId: string;
  let code: string;

  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId, code } = await furnish(console));
    await console.context.store.sites.saveSite({
      ...(await console.context.store.sites.byId(siteId))!,
      timeZone: 'Europe/Berlin',
    });
  });
  afterEach(() => console.close());

  const opened = async (content: string | Uint8Array, fileName = 'old-runs.csv') => {
    const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content;
    const open = await openImport(console.context, { siteId, fileName, bytes: bytes.length });
    if (!open.ok) throw new Error(open.fault.code);
    return { id: open.value.id, received: await receiveImport(console.context, open.value.id, 0, bytes) };
  };
  const guessed = async (content: string | Uint8Array, change: Partial<ImportReading> = {}) => {
    const { id, received } = await opened(content);
    if (!received.ok) throw new Error(received.fault.code);
    const reading = { ...received.value.whole!.guess, ...change };
    return { id, reading, whole: received.value.whole! };
  };
  const looked = async (content: string | Uint8Array, change: Partial<ImportReading> = {}) => {
    const { id, reading } = await guessed(content, change);
    const look = await lookAtImport(console.context, id, reading);
    if (!look.ok) throw new Error(look.fault.code);
    return look.value;
  };
  const taken = async (content: string | Uint8Array, { without = false, tag = '' } = {}) => {
    const { id, reading } = await guessed(content);
    return takeIn(console.context, 'Ines', { importId: id, reading, tag, without });
  };
  const ledger = async (query = '') => {
    const found = await ledgerOf(console.context, { siteId, query });
    return found.ok ? found.value : null;
  };

  it('is told apart over time, and no copy is reckoned by it', async () => {
    const { sites } = console.context.store;
    for (const peer of await sites.peersOf(siteId)) await sites.savePeer({ ...peer, practice: false });
    const { runId } = await measured(
      console,
      orderFor(code, { deviceName: 'Press desk', link: { medium: 'wired', negotiatedBps: null, mtuBytes: 1500 } }),
    );
    expect((await taken(FILE)).ok).toBe(true);
    const subjects = await timeSubjectsOf(console.context, siteId);
    // A device that only a file knows is none of the office's.
    expect(subjects.filter(({ kind }) => kind === 'device')).toHaveLength(1);
    const desk = subjects.find(({ kind, name }) => kind === 'device' && name.startsWith('Press desk'))!;
    const series = await timeSeriesOf(console.context, siteId, desk.key);
    const apart = series.ok && series.value.occasions;
    expect(apart && apart.runId.filter((_, place) => !apart.fromFile[place])).toEqual([runId]);
    expect(apart && apart.fromFile.filter(Boolean)).toHaveLength(2);
    const copy = await copyPageOf(console.context, siteId, desk.key);
    const here = (await console.context.store.runs.byId(runId))!;
    expect(copy.ok && copy.value.chosen?.down.ratesBps.map(Math.round)).toEqual([Math.round(here.downBps!)]);
  });

  it('reads what it is by itself: sign between the cells, decimals, order of days, units', async () => {
    const { whole } = await guessed(FILE);
    expect(whole).toMatchObject({
      shape: { format: 'csv', delimiter: ';', encoding: 'utf-8' },
      guess: { dates: 'day-month-year', decimals: 'comma' },
    });
    expect(whole.examples[1]).toEqual(['Press desk', 'Somebody’s phone', 'press desk']);
    const look = await looked(FILE);
    expect(look).toMatchObject({
      lines: 3,
      runs: 3,
      refused: 0,
      strangers: ['Press desk', 'Somebody’s phone', 'press desk'],
    });
    // Two o'clock in the afternoon at the office.
    expect(look.firstMs).toBe(Date.UTC(2026, 10, 25, 13));
    expect((await ledger())!.count).toBe(0);
  });

  it('is all there afterwards, marked, judging nothing; and is gone again in one step', async () => {
    const own = await measured(
      console,
      orderFor(code, { deviceName: 'Press desk', link: { medium: 'wired', negotiatedBps: null, mtuBytes: 1500 } }),
    );
    const made = await taken(FILE, { tag: 'last-year' });
    expect(made).toMatchObject({ ok: true, value: { runs: 3, state: 'done', byName: 'Ines' } });
    const found = await ledger('tag=last-year');
    expect(found!.runs).toHaveLength(3);
    const device = (await console.context.store.sites.devicesOf(siteId)).find(({ name }) => name === 'Press desk')!;
    expect(
      found!.runs.map(({ deviceId, evidence, verdict, downBps }) => [deviceId, evidence, verdict, downBps]),
    ).toEqual([
      [device.id, 'imported', null, 94e6],
      ['', 'imported', null, 210.2e6],
      [device.id, 'imported', null, 93.8e6],
    ]);
    // What stands on the board is what was measured.
    expect((await console.context.store.runs.newestSets(siteId)).map(({ id }) => id)).toEqual([own.runId]);
    if (!made.ok) throw new Error(made.fault.code);
    expect((await ledger('somebody'))!.count).toBe(1);
    expect(await undoImport(console.context, made.value.id)).toMatchObject({ ok: true });
    expect((await ledger())!.runs.map(({ id }) => id)).toEqual([own.runId]);
    // Names that were only in the file are offered no longer.
    expect((await console.context.store.ledger.names(siteId)).device.map(([name]) => name)).toEqual(['Press desk']);
    expect(await undoImport(console.context, made.value.id)).toMatchObject({ fault: { code: 'import-unknown' } });
  });

  it('takes the same file once, and the same lines of another file once', async () => {
    await taken(FILE);
    expect(await taken(FILE)).toMatchObject({
      fault: { code: 'import-twice', facts: { who: 'Ines', name: 'old-runs.csv' } },
    });
    const longer = [FILE, '25.11.2026 17:00;Press desk;LAN;93,9;21,5;12', LINES[0]].join('\n');
    expect(await looked(longer)).toMatchObject({ lines: 5, runs: 1, known: 3, twice: 1 });
    expect(await taken(longer)).toMatchObject({ ok: true, value: { runs: 1 } });
    expect((await ledger())!.count).toBe(4);
    expect(await taken([HEAD, ...LINES].join('\n'))).toMatchObject({ fault: { code: 'import-nothing' } });
  });

  it('brings in nothing at all where a line cannot be read, unless such lines are to be left out', async () => {
    const broken = [FILE, 'yesterday-ish;Press desk;LAN;93,8;21,5;12', '26.11.2026;Press desk;LAN'].join('\n');
    const look = await looked(broken);
    expect(look.refusedLines.map(({ number, fault }) => [number, fault.code])).toEqual([
      [5, 'moment-unreadable'],
      [6, 'cells-missing'],
    ]);
    expect(await taken(broken)).toMatchObject({ fault: { code: 'import-refused', facts: { line: 5 } } });
    expect((await ledger())!.count).toBe(0);
    expect(await console.context.store.imports.ofSite(siteId)).toEqual([]);
    expect(await taken(broken, { without: true })).toMatchObject({ ok: true, value: { runs: 3 } });
  });

  it('takes files out of its own hands back in, in each of its three formats', async () => {
    await measured(console, orderFor(code, { deviceName: '=Press "desk", 1' }));
    const other = await openTestConsole();
    const { siteId: otherSite } = await furnish(other);
    for (const format of ['csv', 'json', 'ndjson'] as const) {
      const file = await exportedRuns(console.context, { siteId }, format);
      if (!file.ok) throw new Error(file.fault.code);
      let text = '';
      for await (const part of file.value.parts) text += part;
      expect(await looked(text)).toMatchObject({ lines: 1, runs: 0, known: 1, refused: 0 });
      const bytes = new TextEncoder().encode(text);
      const open = await openImport(other.context, {
        siteId: otherSite,
        fileName: `runs.${format}`,
        bytes: bytes.length,
      });
      if (!open.ok) throw new Error(open.fault.code);
      const { id } = open.value;
      const received = await receiveImport(other.context, id, 0, bytes);
      if (!received.ok) throw new Error(received.fault.code);
      const reading = received.value.whole!.guess;
      const done = await takeIn(other.context, 'Ines', { importId: id, reading, tag: '', without: false });
      if (!done.ok) throw new Error(done.fault.code);
      const [before] = (await ledger())!.runs;
      const found = await ledgerOf(other.context, { siteId: otherSite });
      const [after] = found.ok ? found.value.runs : [];
      expect(after).toMatchObject({
        deviceName: '=Press "desk", 1',
        startedAtMs: before!.startedAtMs,
        reach: 'internet',
      });
      expect(after!.downBps! / before!.downBps!).toBeCloseTo(1, 6);
      expect(after!.addedMs).toBeCloseTo(before!.addedMs!, 4);
      await undoImport(other.context, id);
    }
    await other.close();
  });

  it.each([
    ['with a byte-order mark', `\ufeff${FILE}`, 'utf-8'],
    ['as Windows writes it', Buffer.from(FILE.replace('’', '\x92'), 'latin1'), 'windows-1252'],
    ['in UTF-16', Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(FILE, 'utf16le')]), 'utf-16le'],
  ])('reads a file %s', async (_, content, encoding) => {
    const { whole } = await guessed(content);
    expect(whole.shape).toMatchObject({ encoding, headings: HEAD.split(';') });
    expect(await looked(content)).toMatchObject({
      runs: 3,
      strangers: expect.arrayContaining(['Somebody’s phone']) as string[],
    });
  });

  it('reads a table without a head, with tabs, cells of several lines and blank lines', async () => {
    const lines = '2026-11-25 14:00\t"Press\ndesk"\t93.8\n\n2026-11-25 15:00\tBench\t94\n';
    const { id, whole } = await guessed(lines);
    expect(whole.shape).toMatchObject({
      delimiter: '\t',
      hasHeadings: false,
      headings: ['column 1', 'column 2', 'column 3'],
    });
    const columns = [
      { field: 'started', unit: null },
      { field: 'device', unit: null },
      { field: 'down', unit: 'Mb/s' },
    ] as const;
    const look = await lookAtImport(console.context, id, { ...whole.guess, columns });
    expect(look).toMatchObject({ ok: true, value: { lines: 2, runs: 2, refused: 0 } });
  });

  it('names the line with a quote that nobody closed, and reads the others', async () => {
    const broken = [HEAD, LINES[0], '25.11.2026 15:00;"Front;LAN;1;1;1', LINES[2]].join('\n');
    const look = await looked(broken);
    expect(look.refused).toBeGreaterThanOrEqual(1);
    expect(look.refusedLines[0]!.fault.code).toBe('line-broken');
    expect(look.runs).toBeGreaterThanOrEqual(1);
    expect(await taken(broken)).toMatchObject({ fault: { code: 'import-refused' } });
  });

  it('says of an hour that never was that it never was, and takes the first of one that came twice', async () => {
    const at = (when: string) => `${HEAD}\n${when};Press desk;LAN;93,8;21,5;12`;
    expect((await looked(at('29.3.2026 2:30'))).refusedLines[0]!.fault.code).toBe('moment-skipped');
    expect((await looked(at('25.10.2026 2:30'))).firstMs).toBe(Date.UTC(2026, 9, 25, 0, 30));
  });

  it.each([
    ['a picture', Buffer.from('\x89PNG\r\n\x1a\n\0\0\0\rIHDR', 'latin1')],
    ['a text', 'It was slow yesterday evening.\nThe whole evening.\n'],
    ['blanks', '  \n \n'],
    ['JSON that holds no list', '{"runs": 3'],
    ['a list of figures', '[1, 2, 3]'],
    ['a list that was cut off', '[{"started_at":"2026-11-25T14:00:00Z","device":"A","down_mbps":1}'],
  ])('refuses %s, and keeps nothing of it', async (_, content) => {
    const { id, received } = await opened(content);
    expect(received).toMatchObject({ fault: { code: 'import-unreadable' } });
    expect(openImportsOf(console.context).get(id)).toBeNull();
    expect(readdirSync(console.context.uploads)).toEqual([]);
  });

  it('takes the parts of a file in their order, and one whose answer was lost not twice', async () => {
    const bytes = new TextEncoder().encode(FILE);
    const open = await openImport(console.context, { siteId, fileName: 'old.csv', bytes: bytes.length });
    if (!open.ok) throw new Error(open.fault.code);
    const part = (from: number, to: number) =>
      receiveImport(console.context, open.value.id, from, bytes.subarray(from, to));
    await part(0, 40);
    expect(await part(60, 80)).toMatchObject({ fault: { code: 'import-part', facts: { expected: 40 } } });
    await part(0, 40);
    expect(await part(40, bytes.length)).toMatchObject({ ok: true, value: { whole: { shape: { delimiter: ';' } } } });
    expect(await lookAtImport(console.context, open.value.id, open.value.whole!.guess)).toMatchObject({
      value: { runs: 3 },
    });
  });

  it('says that the disk is full, and takes the same part when there is room again', async () => {
    const bytes = new TextEncoder().encode(FILE);
    const made = await openImport(console.context, { siteId, fileName: 'old.csv', bytes: bytes.length });
    if (!made.ok) throw new Error(made.fault.code);
    const open = made.value as { -readonly [Key in keyof typeof made.value]: (typeof made.value)[Key] };
    const { id, file } = open;
    // Writing there fails as on a disk without room.
    open.file = '/dev/full';
    expect(await receiveImport(console.context, id, 0, bytes)).toMatchObject({
      fault: { code: 'store-full', facts: { reason: 'ENOSPC' } },
    });
    open.file = file;
    expect(await receiveImport(console.context, id, 0, bytes)).toMatchObject({ ok: true });
    expect(await lookAtImport(console.context, id, open.whole!.guess)).toMatchObject({ value: { runs: 3 } });
  });

  it('opens no file that is too large, and not many at once; one that was left is forgotten', async () => {
    const open = (bytes: number) => openImport(console.context, { siteId, fileName: 'a.csv', bytes });
    expect(await open(LARGEST_IMPORT + 1)).toMatchObject({ fault: { code: 'import-too-large' } });
    for (let count = 0; count < MOST_OPEN_IMPORTS; count += 1) expect((await open(10)).ok).toBe(true);
    expect(await open(10)).toMatchObject({ fault: { code: 'import-busy' } });
    console.advanceMs(2 * 3600_000);
    expect((await open(10)).ok).toBe(true);
  });

  it('leaves nothing behind when it is stopped in the middle, or the program ends in it', async () => {
    const many = [
      HEAD,
      ...Array.from({ length: 3000 }, (_, at) => `${1790000000 + 60 * at};Press desk;LAN;${90 + (at % 9)};21;12`),
    ].join('\n');
    const { id, reading } = await guessed(many);
    const { imports } = console.context.store;
    const write = imports.write.bind(imports);
    let batches = 0;
    // While the third part is being written somebody closes it.
    imports.write = async (...args) => {
      batches += 1;
      if (batches === 3) {
        expect((await ledger())!.count).toBe(0);
        await closeImport(console.context, id);
      }
      await write(...args);
    };
    const order = { importId: id, reading, tag: '', without: false };
    expect(await takeIn(console.context, 'Ines', order)).toMatchObject({ fault: { code: 'import-stopped' } });
    expect(await imports.ofSite(siteId)).toEqual([]);
    expect((await ledger())!.count).toBe(0);

    // The program ends while it is being written: the next start takes it back.
    const again = await guessed(many);
    imports.write = async (...args) => {
      await write(...args);
      throw new Error('killed');
    };
    imports.takeBack = () => Promise.reject(new Error('killed'));
    await expect(takeIn(console.context, 'Ines', { ...order, importId: again.id })).rejects.toThrow('killed');
    await console.reopen();
    expect(await console.context.store.imports.leftGoing()).toHaveLength(1);
    await clearImports(console.context);
    expect(await console.context.store.imports.leftGoing()).toEqual([]);
    expect(existsSync(console.context.uploads)).toBe(false);
    expect((await console.context.store.ledger.names(siteId)).device).toEqual([]);
  });

  it('is taken in once, though somebody else presses the button meanwhile', async () => {
    const { id, reading } = await guessed(FILE);
    const { imports } = console.context.store;
    const write = imports.write.bind(imports);
    const order = { importId: id, reading, tag: '', without: false };
    const meanwhile: unknown[] = [];
    imports.write = async (...args) => {
      meanwhile.push(await takeIn(console.context, 'Tom', order), await lookAtImport(console.context, id, reading));
      await write(...args);
    };
    expect(await takeIn(console.context, 'Ines', order)).toMatchObject({
      ok: true,
      value: { runs: 3, byName: 'Ines' },
    });
    expect(meanwhile).toMatchObject([{ fault: { code: 'import-taking' } }, { fault: { code: 'import-taking' } }]);
    expect((await ledger())!.count).toBe(3);
  });

  it('comes to light at the next start where all of it was written before the program ended', async () => {
    const { id, reading } = await guessed(FILE);
    const { imports } = console.context.store;
    imports.land = () => Promise.reject(new Error('killed'));
    imports.takeBack = () => Promise.reject(new Error('killed'));
    const order = { importId: id, reading, tag: '', without: false };
    await expect(takeIn(console.context, 'Ines', order)).rejects.toThrow('killed');
    expect((await ledger())!.count).toBe(0);
    await console.reopen();
    await clearImports(console.context);
    expect((await ledger())!.count).toBe(3);
    expect(await console.context.store.imports.ofSite(siteId)).toMatchObject([{ state: 'done', runs: 3 }]);
  });
});
