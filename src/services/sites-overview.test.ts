import { seededRandom } from '@/core';
import { simulateSamples } from '@/demo';
import {
  FACTS,
  furnish,
  LINE_FORM,
  openTestConsole,
  orderFor,
  startRun,
  STRANGER,
  type TestConsole,
} from './console-for-tests';
import { handInRun } from './hand-in-run';
import { saveLine } from './lines';
import { saveOffice } from './offices';
import { savePeer } from './peers';
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
    const run = await startRun(
      console.context,
      { ...STRANGER, code },
      orderFor(code, { reach: 'tunnel' }),
      'http://192.0.2.20:4870',
    );
    if (!run.ok) throw new Error(run.fault.code);
    const samples = simulateSamples(THROUGH_TUNNEL, seededRandom(3));
    const handIn = { outcome: 'finished', samples, facts: { ...FACTS, sameMachine: false } } as const;
    const answer = await handInRun(console.context, run.value.runId, run.value.runKey, handIn);
    expect(await console.context.store.runs.byId(run.value.runId)).toMatchObject({
      plan: { downBps: 20e6, upBps: 100e6, slowerEnd: 'Tarnfell Fibre 500/100 and Brackwater 150/20' },
    });
    expect(answer).toMatchObject({
      value: { held: expect.stringMatching(/^The slower end of the tunnel gives 20 down/) },
    });
    const [first, second] = await sitesOverview(console.context);
    expect(first!.tunnels).toMatchObject([
      { peerName: 'Shop', farSiteName: 'Quay Street', count: 1, slowerEnd: { downBps: 20e6, upBps: 100e6 } },
    ]);
    expect(first!.tunnels[0]!.downBps! / 18.6e6).toBeCloseTo(1, 1);
    expect(second).toMatchObject({ plan: { downBps: 150e6 }, internet: { newest: null, count: 0, downBps: null } });
  });
});
