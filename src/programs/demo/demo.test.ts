import { openTestConsole, type TestConsole } from '@/services/console/console-for-tests';
import { boardOf, deviceCookieValue, sitesOverview, timeSeriesOf } from '@/services';
import { demoDevicesOf, demoPracticeDocument, devicePracticeDocument, seedDemo } from '.';

describe('the demo', () => {
  let console: TestConsole;
  beforeAll(async () => {
    console = await openTestConsole();
    await seedDemo(console.context);
  }, 60_000);
  afterAll(() => console.close());

  const cellsOf = async (name: string, siteId?: string) => {
    const board = await boardOf(console.context, siteId);
    if (!board.ok) throw new Error(board.fault.code);
    const row = board.value.groups.flatMap(({ rows }) => rows).find(({ deviceName }) => deviceName === name)!;
    return board.value.columns.flatMap((column, index) => {
      const { cell } = row.cells[index]!;
      return cell === null ? [] : [{ place: `${column.linkKind} ${column.reach}`, ...cell }];
    });
  };

  it('has the faults built in that are to be found', async () => {
    const scan = await cellsOf('Scan room workstation');
    expect(scan.find(({ place }) => place === 'wired internet')).toMatchObject({ linkBelowPlan: true, count: 3 });
    expect((await cellsOf('Finishing bench laptop'))[0]).toMatchObject({ place: 'wired local', verdict: 'starved' });
    const [, internet] = await cellsOf('Press desk');
    expect(internet).toMatchObject({ verdict: 'full', rating: 'collapsed' });
    const glue = await cellsOf('Glue room tablet');
    expect(glue.find(({ place }) => place === 'wifi-2.4 internet')).toMatchObject({ verdict: 'starved' });
  });

  it('has a tunnel that runs at the slower end’s upload, and a router at the shop that helped', async () => {
    const [mill, quay] = await sitesOverview(console.context);
    expect(mill!.tunnels[0]).toMatchObject({
      slowerEnd: { downBps: 20e6 },
      verdict: 'full',
      newest: { runId: expect.any(String) },
    });
    const series = await timeSeriesOf(
      console.context,
      quay!.site.id,
      `line ${(await console.context.store.sites.linesOf(quay!.site.id))[0]!.id}`,
    );
    const { startedAtMs, addedUp } = series.ok ? series.value.occasions : { startedAtMs: [], addedUp: [] };
    const agoDays = (atMs: number) => (console.context.wallMs() - atMs) / (24 * 3600_000);
    const added = (from: number, to: number) =>
      addedUp
        .filter((_, place) => agoDays(startedAtMs[place]!) > from && agoDays(startedAtMs[place]!) < to)
        .map((ms) => ms!);
    expect(Math.min(...added(11, 21))).toBeGreaterThan(Math.max(...added(0, 8)));
  });

  it('is marked as such, begins three weeks ago, and is not made twice', async () => {
    const sites = await console.context.store.sites.all();
    expect(sites.map(({ demo }) => demo)).toEqual([true, true]);
    const { ledger } = console.context.store;
    const count = await ledger.count(sites[0]!.id, []);
    await seedDemo(console.context);
    expect(await ledger.count(sites[0]!.id, [])).toEqual(count);
    const [oldest] = (await ledger.slice(sites[0]!.id, [], { by: 'when', descending: false }, 1)).runs;
    expect((console.context.wallMs() - oldest!.startedAtMs) / (24 * 3600_000)).toBeGreaterThan(20);
  });

  it('plays devices with a cookie of their own and a practice line of their link on each of their ways', async () => {
    let port = 41_000;
    const { devices, lines } = await demoDevicesOf(console.context, () => Promise.resolve((port += 1)));
    expect(devices.map(({ deviceName }) => deviceName).sort()).toEqual([
      ...[
        'Accounts laptop',
        'Attic agent',
        'Finishing bench laptop',
        'Front counter',
        'Glue room tablet',
        'Press desk',
      ],
      ...['Scan room workstation', 'Stockroom laptop'],
    ]);
    const scan = devices.find(({ deviceName }) => deviceName === 'Scan room workstation')!;
    expect(scan.cookie).toBe(deviceCookieValue(console.context, scan.deviceId));
    // To the peer inside, through the provider's line, and through the tunnel.
    expect(Object.keys(scan.ways)).toEqual(['4870', '4871', '4874']);
    const document = devicePracticeDocument(lines);
    const listening = document.lines.map(({ listenPort }) => listenPort);
    expect(new Set(listening).size).toBe(listening.length);
    const inside = document.lines.find(({ listenPort }) => listenPort === scan.ways[4870])!;
    expect(inside).toMatchObject({ to: { port: 4870 }, down: { rateMbps: 94.1 }, up: { rateMbps: 94.1 } });
  });

  it('has a tunnel in each direction that gives what the slower line sends or receives', () => {
    const [, , fromMill, fromQuay] = demoPracticeDocument(4870).lines;
    expect(fromMill!.down.rateMbps / fromQuay!.up.rateMbps).toBeCloseTo(1, 9);
    expect(fromMill!.down.rateMbps).toBeLessThan(20);
    expect(fromMill!.up.rateMbps).toBeLessThan(100);
  });
});
