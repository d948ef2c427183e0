import { seededRandom, type RunSamples } from '@/core';
import { simulateSamples } from '@/programs/demo/samples';
import { boardOf } from '../views/board';
import {
  cookieFor,
  furnish,
  GOOD_LINE,
  handedIn,
  measured,
  openTestConsole,
  orderFor,
  STRANGER,
  type TestConsole,
} from '../console/console-for-tests';
import { handInRun } from './hand-in-run';
import { pinPeer } from '../office/peers';
import { runPageOf } from '../views/run-page';
import { sitesOverview } from '../views/sites-overview';
import { askForRun, queueTurns, standBy } from '../turns';

const ORIGIN = 'http://192.0.2.20:4870';
const SHARE = { ...GOOD_LINE, down: { ...GOOD_LINE.down, rateBps: 160e6 }, up: { ...GOOD_LINE.up, rateBps: 33e6 } };
const samplesOf = (line = GOOD_LINE): RunSamples => simulateSamples(line, seededRandom(5));

describe('evidence at the console', () => {
  let console: TestConsole;
  let code: string;
  let siteId: string;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ code, siteId } = await furnish(console));
  });
  afterEach(() => console.close());

  const shown = async () => {
    const board = await boardOf(console.context);
    if (!board.ok) throw new Error(board.fault.code);
    return board.value.groups
      .flatMap(({ rows }) => rows)
      .flatMap(({ deviceName, cells }) => cells.flatMap(({ cell }) => (cell ? [[deviceName, cell.verdict]] : [])));
  };

  /** Three devices measure alone, stand by, and are then asked to run at the same instant. */
  async function together(): Promise<string[]> {
    const names = ['Press desk', 'Bench', 'Scan room'];
    const links = [];
    for (const deviceName of names) {
      const { deviceId } = await measured(console, orderFor(code, { deviceName }));
      const asked: string[] = [];
      const link = {
        send: (order: { kind: string; turnId?: string }) => asked.push(order.turnId ?? ''),
        close: () => {},
      };
      await standBy(console.context, await cookieFor(console, deviceId), link);
      links.push({ deviceId, asked });
    }
    const queued = await queueTurns(console.context, 'Ines', {
      ...{ siteId, deviceIds: links.map(({ deviceId }) => deviceId), reaches: ['internet'], times: 1 },
      ...{ profile: 'standard', together: true },
    });
    if (!queued.ok) throw new Error(queued.fault.code);
    const grants = [];
    for (const { deviceId, asked } of links) {
      const order = orderFor(null, { deviceId, deviceName: null, turnId: asked.at(-1)! });
      const visitor = { ...STRANGER, cookie: await cookieFor(console, deviceId) };
      const answer = await askForRun(console.context, visitor, order, ORIGIN);
      if (!answer.ok || answer.value.status !== 'granted') throw new Error('not granted');
      grants.push(answer.value);
    }
    const samples = samplesOf(SHARE);
    for (const grant of grants) await handInRun(console.context, grant.runId, grant.runKey, handedIn(samples, grant));
    return grants.map(({ runId }) => runId);
  }

  it('of runs made together is what they shared: the board and the week keep what each had alone', async () => {
    const runIds = await together();
    expect(await shown()).toEqual([
      ['Bench', 'full'],
      ['Press desk', 'full'],
      ['Scan room', 'full'],
    ]);
    const [summary] = await sitesOverview(console.context);
    expect(summary!.internet.count).toBe(3);
    expect(summary!.internet.downBps! / 486e6).toBeCloseTo(1, 1);
    const page = await runPageOf(console.context, runIds[0]!);
    if (!page.ok) throw new Error(page.fault.code);
    const { run, together: shared, ratesOfMonth } = page.value;
    expect(run).toMatchObject({ verdict: 'no verdict', evidence: 'together' });
    expect(shared.runs).toHaveLength(3);
    expect(shared.share!.down!.sumBps / 480e6).toBeCloseTo(1, 1);
    expect(shared.share!.down!.fairness).toBeGreaterThan(0.99);
    // Copy times come from what the device had alone.
    expect(ratesOfMonth.downBps).toHaveLength(1);
  });

  it('of samples times a million is none: no verdict, with the fact', async () => {
    const asked = await askForRun(console.context, { ...STRANGER, code }, orderFor(code), ORIGIN);
    if (!asked.ok || asked.value.status !== 'granted') throw new Error('not granted');
    const grant = asked.value;
    const honest = samplesOf();
    const forged = {
      ...honest,
      download: {
        ...honest.download!,
        bytes: honest.download!.bytes.map((stream) => stream.map((count) => count * 1e6)),
      },
    };
    const { outcome, facts } = handedIn(honest, grant) as Extract<ReturnType<typeof handedIn>, { outcome: 'finished' }>;
    const answer = await handInRun(console.context, grant.runId, grant.runKey, { outcome, facts, samples: forged });
    expect(answer).toMatchObject({ ok: true, value: { result: { verdict: 'no verdict' } } });
    const stored = (await console.context.store.runs.byId(grant.runId))!;
    expect(stored.evidence).toBe('voided');
    expect(stored.report!.fitness[0]).toMatchObject({ code: 'not-credible' });
  });

  it('rests on what the peer signed, not on what the client says of itself', async () => {
    const asked = await askForRun(console.context, { ...STRANGER, code }, orderFor(code), ORIGIN);
    if (!asked.ok || asked.value.status !== 'granted') throw new Error('not granted');
    const grant = asked.value;
    // The peer saw its own machine; the client says that it came from elsewhere.
    const handIn = handedIn(samplesOf(), grant, { sameMachine: false }, { sameMachine: true });
    await handInRun(console.context, grant.runId, grant.runKey, handIn);
    expect((await console.context.store.runs.byId(grant.runId))!.sameMachine).toBe(true);
  });

  it.each([
    ['of another run', { runId: 'another' }],
    ['of another ticket', { ticketId: 'another' }],
  ])('takes no receipt %s', async (_, changes) => {
    const asked = await askForRun(console.context, { ...STRANGER, code }, orderFor(code), ORIGIN);
    if (!asked.ok || asked.value.status !== 'granted') throw new Error('not granted');
    const grant = asked.value;
    await handInRun(console.context, grant.runId, grant.runKey, handedIn(samplesOf(), grant, {}, changes));
    const stored = (await console.context.store.runs.byId(grant.runId))!;
    expect(stored.receipt).toEqual({ receipt: null });
    expect(stored.brief!.flags).toContain('no-receipt');
    expect(stored.downBps).not.toBeNull();
  });

  it('ends a run at its start plus what the client’s own clock counted, whatever the wall clock did', async () => {
    const asked = await askForRun(console.context, { ...STRANGER, code }, orderFor(code), ORIGIN);
    if (!asked.ok || asked.value.status !== 'granted') throw new Error('not granted');
    const grant = asked.value;
    const samples = samplesOf();
    console.advanceMs(-2 * 3600_000);
    await handInRun(console.context, grant.runId, grant.runKey, handedIn(samples, grant));
    const { startedAtMs, endedAtMs } = (await console.context.store.runs.byId(grant.runId))!;
    expect(endedAtMs! - startedAtMs).toBeCloseTo(samples.phases.at(-1)!.toMs, 3);
  });

  it('keeps cable and air apart: one in turn with the other breaks no set', async () => {
    const cable = orderFor(code).link;
    const air = { medium: 'wifi', band: '5', linkRateBps: 866e6 } as const;
    const { deviceId } = await measured(console, orderFor(code));
    const runs = [];
    for (const link of [air, cable, air, cable])
      runs.push(await measured(console, orderFor(code, { deviceId, deviceName: null, link })));
    const sets = await Promise.all(
      runs.map(async ({ runId }) => (await console.context.store.runs.byId(runId))!.setId),
    );
    expect(new Set([sets[0], sets[2]]).size).toBe(1);
    expect(new Set([sets[1], sets[3]]).size).toBe(1);
    expect(sets[0]).not.toBe(sets[1]);
  });

  it('takes a newly pinned peer for the usual one from that moment, whatever went before', async () => {
    for (const deviceName of ['a', 'b', 'c']) await measured(console, orderFor(code, { deviceName }));
    const outside = (await console.context.store.sites.peer('outside'))!;
    await console.context.store.sites.savePeer({ ...outside, id: 'second', name: 'Valley exchange', address: ':4872' });
    await pinPeer(console.context, 'second');
    const { runId } = await measured(console, orderFor(code, { deviceName: 'd' }));
    const run = (await console.context.store.runs.byId(runId))!;
    expect([run.peerId, run.otherPeerThanUsual]).toEqual(['second', false]);
  });
});
