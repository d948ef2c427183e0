import {
  furnish,
  GOOD_LINE,
  measured,
  openTestConsole,
  orderFor,
  type TestConsole,
} from '../../console/console-for-tests';
import { letterheadOf, saveLetterhead } from '../../office';
import { reportOf, reportPdf, type Report, type ReportOrder } from '.';

/** A picture of one pixel. */
const PIXEL = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);
const HOUR = 3600_000;

describe('a report', () => {
  let console: TestConsole;
  let siteId: string;
  let order: ReportOrder;

  const read = async (change: Partial<ReportOrder> = {}): Promise<Report> => {
    const report = await reportOf(console.context, { ...order, ...change } as ReportOrder);
    if (!report.ok) throw new Error(report.fault.code);
    return report.value;
  };
  const sectionOf = ({ sections }: Report, key: string) => sections.find((each) => each.key === key);

  beforeAll(async () => {
    console = await openTestConsole();
    const { code, siteId: id } = await furnish(console);
    siteId = id;
    const outside = (await console.context.store.sites.peer('outside'))!;
    await console.context.store.sites.savePeer({ ...outside, practice: false });
    const fromMs = console.context.wallMs();
    for (const [deviceName, downBps] of [
      ['Press desk', 490e6],
      ['Pasting table', 480e6],
      ['Scan room', 90e6],
    ] as const) {
      console.advanceMs(20 * 60_000);
      const line = { ...GOOD_LINE, down: { ...GOOD_LINE.down, rateBps: downBps } };
      await measured(console, orderFor(code, { deviceName }), line);
    }
    const untilMs = console.context.wallMs() + HOUR;
    order = { kind: 'span', siteId, fromMs, untilMs, title: 'November 2026', sections: null };
  });
  afterAll(() => console.close());

  it('says in its first lines how much was measured and whether the line keeps what is paid for', async () => {
    const report = await read();
    expect(report.lead[0]).toBe('3 runs by 3 devices on 1 day.');
    expect(report.lead.join(' ')).toMatch(/Tarnfell Fibre 500\/100: Of 3 runs that could tell, 2 met the plan: 67 %\./);
    expect(report.span).toMatch(/24 November 2026/);
  });

  it('says nothing of silences where nobody watched, and whose fault they were where somebody did', async () => {
    expect(sectionOf(await read(), 'silence')).toBeUndefined();
    const { store, wallMs } = console.context;
    const deviceId = (await store.sites.devicesOf(siteId))[0]!.id;
    await store.agents.save({
      ...{ deviceId, siteId, version: '0.1.0', protocol: 1, can: ['lanes'], clockOffsetMs: 0, outbox: 0 },
      facts: { system: 'Debian', gateway: null, gatewayMs: null, resolvers: [], links: [] },
      ...{ joinedAtMs: 0, seenAtMs: wallMs() },
    });
    const lane = {
      id: 'lane',
      name: 'Hilltop',
      kind: 'echo',
      target: '203.0.113.9',
      role: 'outside',
      everyMs: 1000,
    } as const;
    await store.lanes.save({ ...lane, siteId, deviceId, place: 0, madeAtMs: 0, removedAtMs: null, answeredAtMs: 1 });
    const fromMs = Math.floor(wallMs() / HOUR - 1) * HOUR;
    const figures = { minMs: 9, medianMs: 12, p95Ms: 14, maxMs: 90 };
    const minutes = Array.from({ length: 60 }, (_, minute) => ({
      ...{
        laneId: 'lane',
        fromMs: fromMs + minute * 60_000,
        sent: 60,
        answered: 60,
        lostThere: 0,
        lostBack: 0,
        ...figures,
        raw: new Uint8Array(),
      },
    }));
    await store.lanes.addMinutes(minutes);
    await store.lanes.replaceOutages(
      deviceId,
      [],
      [
        {
          ...{ id: 'o1', siteId, deviceId, fault: 'line', laneIds: ['lane'], air: false },
          ...{ fromMs: fromMs + 600_000, untilMs: fromMs + 642_000 },
        },
      ],
    );
    const report = await read({ fromMs, untilMs: fromMs + HOUR });
    const silence = sectionOf(report, 'silence')!;
    expect(silence.sentences[0]).toMatch(
      /^The line was there 98\.8 % of the watched time: silent for 42 s in one outage \(seen by .+\)\.$/,
    );
    expect(silence.table!.rows).toEqual([
      [expect.any(String), '42 s', 'the line', 'The gateway answered, nothing outside did: the line'],
    ]);
    await store.agents.remove(deviceId);
  });

  it('holds the medians of each device, link and reach', async () => {
    const { table } = sectionOf(await read(), 'measured')!;
    expect(table!.rows.map(([device, , reach, runs]) => [device, reach, runs])).toEqual([
      ['Pasting table', 'internet', '1'],
      ['Press desk', 'internet', '1'],
      ['Scan room', 'internet', '1'],
    ]);
    const down = table!.rows.map((row) => Number(row[4]));
    [480, 490, 90].forEach((mbps, place) => expect(down[place]! / mbps).toBeCloseTo(1, 1));
  });

  it('counts no run that was brought in from a file among what was measured, and says so', async () => {
    const { imports } = console.context.store;
    const { fromMs } = order as Extract<ReportOrder, { kind: 'span' }>;
    const file = { id: 'file', siteId, fileName: 'a.csv', sha256: 'a', byName: 'Ines', madeAtMs: fromMs };
    await imports.begin(file);
    await imports.write(file, [
      {
        ...{ id: 'old', setId: 'old', deviceId: '', lineId: null, deviceName: 'Old box', spotName: null, peerName: '' },
        ...{ lineName: null, reach: 'internet', link: { medium: 'unknown' }, linkKind: 'unknown', profile: 'unknown' },
        ...{ startedAtMs: fromMs + 1000, endedAtMs: null, downBps: 1e6, upBps: null, idleMs: null, addedMs: null },
        ...{ brief: { flags: ['imported'] }, notes: '', tags: [] },
      },
    ]);
    await imports.finish({ id: 'file', runs: 1 });
    const report = await read();
    expect(report.lead[0]).toBe('3 runs by 3 devices on 1 day.');
    expect(sectionOf(report, 'measured')!.sentences.join(' ')).toContain('1 more is not in it');
    await imports.takeBack('file');
  });

  it('has what was chosen and nothing else, and nothing of another time', async () => {
    expect((await read({ sections: ['measured'] })).sections.map(({ key }) => key)).toEqual(['measured']);
    expect((await read({ sections: [] })).sections).toEqual([]);
    const { fromMs } = order as Extract<ReportOrder, { kind: 'span' }>;
    const before = await read({ fromMs: fromMs - 9 * HOUR, untilMs: fromMs });
    expect(before.lead[0]).toBe('Nothing that counts was measured.');
    expect(before.sections).toEqual([]);
  });

  it('of a hunt or a swap that is gone, or of another office, is none', async () => {
    const gone = await reportOf(console.context, { kind: 'hunt', siteId, id: 'none', sections: null });
    expect(gone).toMatchObject({ fault: { code: 'report-unknown' } });
    expect(await reportOf(console.context, { kind: 'swap', siteId, id: 'none', sections: null })).toMatchObject({
      fault: { code: 'report-unknown' },
    });
    expect(await reportOf(console.context, { ...order, siteId: 'none' })).toMatchObject({
      fault: { code: 'site-missing' },
    });
  });

  it('lets others have their turn while a long one is set, and ends at once when nobody waits for it', async () => {
    const { context } = console;
    const report = await read();
    const row = Array.from({ length: 3 }, () => 'a cell of a long table');
    const long = {
      key: report.sections[0]!.key,
      heading: 'Long',
      sentences: [],
      table: { head: row, shares: [0.3, 0.3, 0.4], rows: Array.from({ length: 5000 }, () => row) },
    };
    const stop = new AbortController();
    let turns = 0;
    const others = setInterval(() => {
      turns += 1;
      if (turns === 5) stop.abort();
    }, 1);
    await expect(reportPdf({ ...report, sections: [long] }, context.printFonts, stop.signal)).rejects.toMatchObject({
      name: 'AbortError',
    });
    clearInterval(others);
    expect(turns).toBeGreaterThanOrEqual(5);
  });

  it('is headed by who made it, with a picture that is one', async () => {
    const { context } = console;
    const letterhead = { name: 'Quill & Wire', address: '3 Mill Lane\n\n Tarnfell ' };
    expect(
      await saveLetterhead(context, { ...letterhead, logo: Buffer.from('<svg onload="alert(1)"/>') }),
    ).toMatchObject({
      fault: { code: 'logo-unreadable' },
    });
    expect(await letterheadOf(context)).toEqual({ name: '', lines: [], logo: null });
    expect(await saveLetterhead(context, { ...letterhead, logo: PIXEL })).toMatchObject({ ok: true });
    await saveLetterhead(context, { ...letterhead, logo: 'keep' });
    const report = await read();
    expect(report.letterhead).toEqual({
      ...{ name: 'Quill & Wire', lines: ['3 Mill Lane', 'Tarnfell'] },
      logo: `data:image/png;base64,${PIXEL.toString('base64')}`,
    });
    const pdf = await reportPdf({ ...report, title: 'Łódź, 東京 '.repeat(9) }, context.printFonts);
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
    expect(pdf.length).toBeLessThan(1e6);
    await saveLetterhead(context, { ...letterhead, logo: null });
    expect((await letterheadOf(context)).logo).toBeNull();
  });
});
