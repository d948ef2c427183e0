import {
  deviceForm,
  furnish,
  GOOD_LINE,
  LINE_FORM,
  measured,
  openTestConsole,
  orderFor,
  type TestConsole,
} from '../console/console-for-tests';
import { crossingOf } from '../office/line-choice';
import { saveLine } from '../office/lines';
import { saveOffice } from '../office/offices';
import { savePeer } from '../office/peers';
import { runPageOf } from './run-page';
import { needsOf } from '../runs/start-run';
import { noteHello } from '../agents';
import { saveDevice } from '../office';
import { setBudget } from '../schedules';
import { officesAtAGlance } from './offices-glance';
import { sitesOverview } from './sites-overview';

/** Through the tunnel come 18.6 of the 20 Mb/s that the shop's line sends. */
const THROUGH_TUNNEL = {
  ...{ idleMs: 35, jitterMs: 0.8 },
  down: { rateBps: 18.6e6, queueMs: 22, swing: 0.004, dips: 0 },
  up: { rateBps: 93e6, queueMs: 22, swing: 0.004, dips: 0 },
};

describe('all offices side by side', () => {
  let console: TestConsole;
  let siteId: string;
  let code: string;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId, code } = await furnish(console));
    const shop = await saveOffice(console.context, null, 'Quay Street');
    if (!shop.ok) throw new Error(shop.fault.code);
    const plan = { downMbps: 150, upMbps: 20, leastDownMbps: null };
    await saveLine(console.context, shop.value.id, null, { ...LINE_FORM, ...plan, lineName: 'Brackwater 150/20' });
    await savePeer(console.context, siteId, null, {
      ...{ name: 'Shop', reach: 'tunnel', address: ':4874', farSiteId: shop.value.id },
    });
  });
  afterEach(() => console.close());

  it('hold a tunnel against the slower end of both lines, and a run through it too', async () => {
    const { runId } = await measured(console, orderFor(code, { reach: 'tunnel' }), THROUGH_TUNNEL);
    expect(await runPageOf(console.context, runId)).toMatchObject({
      value: {
        run: { plan: { downBps: 20e6, upBps: 100e6, slowerEnd: 'Tarnfell Fibre 500/100 and Brackwater 150/20' } },
        result: { sentence: { held: expect.stringMatching(/^The slower end of the tunnel gives 20 down/) } },
      },
    });
    const [first, second] = await sitesOverview(console.context);
    expect(first!.tunnels).toMatchObject([
      { peerName: 'Shop', farSiteName: 'Quay Street', count: 1, slowerEnd: { downBps: 20e6, upBps: 100e6 } },
    ]);
    expect(first!.tunnels[0]!.downBps! / 18.6e6).toBeCloseTo(1, 1);
    expect(second).toMatchObject({ plan: { downBps: 150e6 }, internet: { newest: null, count: 0, downBps: null } });
  });

  it('let no run of either office take a line while a tunnel between them is measured', async () => {
    const { context } = console;
    const [peer] = (await context.store.sites.peersOf(siteId)).filter(({ reach }) => reach === 'tunnel');
    const crossing = await crossingOf(context, siteId, peer!, context.wallMs());
    const needs = needsOf(siteId, peer!, crossing, { medium: 'unknown' });
    const lineOf = async (id: string) => (await context.store.sites.lineInUse(id, context.wallMs()))!.id;
    expect(needs).toEqual([`line:${await lineOf(siteId)}`, `line:${await lineOf(peer!.farSiteId!)}`]);
  });

  it('has those with the most trouble first, each in one line', async () => {
    const [mill, quay] = await console.context.store.sites.all();
    await measured(console, orderFor(code));
    expect((await officesAtAGlance(console.context)).map(({ trouble }) => trouble)).toEqual([2, 0]);
    const slow = { ...GOOD_LINE, down: { ...GOOD_LINE.down, rateBps: 120e6 } };
    for (const deviceName of ['Bench', 'Scan room']) {
      console.advanceMs(31 * 60_000);
      await measured(console, orderFor(code, { deviceName }), slow);
    }
    const [first, second] = await officesAtAGlance(console.context);
    expect(first).toMatchObject({ siteId: mill!.id, verdict: 'starved', occasions: 3, silentAgents: [] });
    expect(first!.planShare).toBeCloseTo(1 / 3, 5);
    expect(second).toMatchObject({ siteId: quay!.id, planShare: null, newestAtMs: null, trouble: 0 });
  });

  it('names agents that are silent, and what is used of the data volume', async () => {
    const [mill, quay] = await console.context.store.sites.all();
    const { store } = console.context;
    const saved = await saveDevice(console.context, quay!.id, null, deviceForm({ name: 'Shop agent' }));
    if (!saved.ok) throw new Error(saved.fault.code);
    const facts = { system: '', gateway: null, gatewayMs: null, resolvers: [], links: [] };
    await noteHello(console.context, saved.value, {
      ...{ version: '1', protocol: 1, clockMs: 0, outbox: 0 },
      neighbours: [],
      can: [],
      facts,
    });
    await measured(console, orderFor(code));
    const [line] = await store.sites.linesOf(mill!.id);
    await setBudget(console.context, line!.id, 1);
    const found = await officesAtAGlance(console.context);
    const of = (siteId: string) => found.find((each) => each.siteId === siteId)!;
    expect(of(quay!.id)).toMatchObject({ silentAgents: ['Shop agent'], trouble: 2 });
    expect(of(mill!.id).budgetShare).toBeGreaterThan(0.1);
  });
});
