import { NO_SAMPLES } from '@/core';
import type { QueueOrder, StandingOrder, StartRun } from '@/wire';
import {
  cookieFor,
  deviceForm,
  finished,
  furnish,
  LINE_FORM,
  openTestConsole,
  orderFor,
  STRANGER,
  visitorOf,
  type TestConsole,
} from '../console/console-for-tests';
import { ASKS_WITHIN_MS } from '../console/waiting-devices';
import { saveDevice } from '../office/devices';
import { handInRun } from '../runs/hand-in-run';
import { putLineInUse, saveLine } from '../office/lines';
import {
  askForRun,
  giveTurnBack,
  moveQueue,
  NOTICE_MS,
  queueTurns,
  resumeQueue,
  standBy,
  trayOf,
  withdrawTurn,
} from '.';

const ORIGIN = 'http://192.0.2.20:4870';

describe('turns at the console', () => {
  let console: TestConsole;
  let code: string;
  let siteId: string;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ code, siteId } = await furnish(console));
  });
  afterEach(() => console.close());

  const ask = async (order: Partial<StartRun>) => {
    const full = orderFor(code, order);
    const answer = await askForRun(console.context, await visitorOf(console, full), full, ORIGIN);
    if (!answer.ok) throw new Error(answer.fault.code);
    return answer.value;
  };
  const granted = async (order: Partial<StartRun>) => {
    const answer = await ask(order);
    if (answer.status !== 'granted') throw new Error(answer.why);
    return answer;
  };
  const waiting = async (order: Partial<StartRun>) => {
    const answer = await ask(order);
    if (answer.status !== 'waiting') throw new Error('it was granted');
    return answer;
  };
  const end = (run: { runId: string; runKey: string }) =>
    handInRun(console.context, run.runId, run.runKey, finished(NO_SAMPLES));

  it('is given back by whoever holds its key, and by nobody else', async () => {
    await granted({ deviceName: 'First' });
    const second = await waiting({ deviceName: 'Second' });
    const third = await waiting({ deviceName: 'Third' });
    for (const wrong of ['', 'x', third.turnKey, `${second.turnKey}x`])
      expect(await giveTurnBack(console.context, second.turnId, wrong)).toBe(false);
    expect((await trayOf(console.context, siteId)).map(({ turnId }) => turnId)).toContain(second.turnId);
    expect(await giveTurnBack(console.context, second.turnId, second.turnKey)).toBe(true);
    const left = (await trayOf(console.context, siteId)).filter(({ state }) => state.status === 'waiting');
    expect(left.map(({ turnId }) => turnId)).toEqual([third.turnId]);
  });

  /** A device of the office that stands by, with what it was told. */
  const standing = async (name: string) => {
    const saved = await saveDevice(console.context, siteId, null, deviceForm({ name }));
    if (!saved.ok) throw new Error(saved.fault.code);
    const told: StandingOrder[] = [];
    const cookie = await cookieFor(console, saved.value.id);
    const link = { send: (order: StandingOrder) => told.push(order), close: () => undefined };
    const session = (await standBy(console.context, cookie, link))!;
    return { id: saved.value.id, cookie, told, session };
  };
  const round = (deviceIds: string[], changes: Partial<QueueOrder> = {}): QueueOrder => ({
    ...{ siteId, deviceIds, reaches: ['internet'], times: 1, profile: 'quick', together: false },
    ...changes,
  });
  /** As the page of a device does that was asked. */
  const takeUp = async (
    device: { id: string; cookie: string },
    turnId: string,
    reach: StartRun['reach'] = 'internet',
  ) => {
    const order = orderFor(null, { deviceId: device.id, deviceName: null, turnId, reach, profile: 'quick' });
    const answer = await askForRun(console.context, { ...STRANGER, cookie: device.cookie }, order, ORIGIN);
    if (!answer.ok) throw new Error(answer.fault.code);
    if (answer.value.status !== 'granted') throw new Error(answer.value.why);
    return answer.value;
  };
  const asked = (told: readonly StandingOrder[]) =>
    told.flatMap((order) => (order.kind === 'asked' ? [order.turnId] : []));

  it('make a second device over the same line wait, say for whom and how long, and let it go when the line is free', async () => {
    const first = await granted({});
    const second = await waiting({ deviceName: 'Accounts laptop' });
    expect(second.why).toBe('Press desk is measuring over the same line');
    expect(second.aboutMs).toBeGreaterThan(10_000);
    expect(second.aboutMs).toBeLessThan(30_000);
    await end(first);
    const again = { deviceId: second.deviceId, deviceName: null, turnId: second.turnId };
    expect((await granted(again)).deviceName).toBe('Accounts laptop');
  });

  it('let a run inside the office go on beside one over the line', async () => {
    await granted({});
    expect((await granted({ deviceName: 'Scan room workstation', reach: 'local' })).peer.name).toBe('this machine');
  });

  it('keep the order of asking among ten devices that ask in the same second, one run at a time', async () => {
    const names = Array.from({ length: 10 }, (_, index) => `Device ${index}`);
    const answers = await Promise.all(names.map((deviceName) => ask({ deviceName })));
    expect(answers.filter(({ status }) => status === 'granted')).toHaveLength(1);
    let waitingOnes = answers.filter((answer) => answer.status === 'waiting');
    let running = answers.find((answer) => answer.status === 'granted')!;
    const order: string[] = [];
    while (waitingOnes.length > 0) {
      if (running.status === 'granted') await end(running);
      const next = await Promise.all(
        waitingOnes.map(({ deviceId, turnId }) => ask({ deviceId, deviceName: null, turnId })),
      );
      const started = next.filter((answer) => answer.status === 'granted');
      expect(started).toHaveLength(1);
      running = started[0]!;
      order.push(running.deviceName);
      waitingOnes = next.filter((answer) => answer.status === 'waiting');
    }
    expect(order).toHaveLength(9);
    expect(new Set(order).size).toBe(9);
  });

  it('never let two runs over one line when the office switched lines while they waited', async () => {
    const first = await granted({});
    const second = await waiting({ deviceName: 'Accounts laptop' });
    const spare = await saveLine(console.context, siteId, null, { ...LINE_FORM, lineName: 'Spare line' });
    if (!spare.ok) throw new Error(spare.fault.code);
    console.advanceMs(1000);
    await putLineInUse(console.context, siteId, spare.value.id);
    const third = await ask({ deviceName: 'Front counter' });
    await end(first);
    const again = ({ deviceId, turnId }: { deviceId: string; turnId: string }) =>
      ask({ deviceId, deviceName: null, turnId });
    const now = [await again(second), third.status === 'waiting' ? await again(third) : third];
    expect(now.filter(({ status }) => status === 'granted')).toHaveLength(1);
    // They measure over the line that is in use now, whatever it was when they asked.
    const [run] = (await console.context.store.runs.running()).map(({ lineName }) => lineName);
    expect(run).toBe('Spare line');
  });

  it('are given back when the device that waits vanishes', async () => {
    const first = await granted({});
    await waiting({ deviceName: 'Accounts laptop' });
    const third = await waiting({ deviceName: 'Front counter' });
    console.advanceMs(ASKS_WITHIN_MS - 1000);
    const asking = { deviceId: third.deviceId, deviceName: null, turnId: third.turnId };
    await waiting(asking);
    console.advanceMs(2000);
    await end(first);
    expect((await granted(asking)).deviceName).toBe('Front counter');
  });

  it('cannot be used by another device, nor twice', async () => {
    const first = await granted({});
    const second = await waiting({ deviceName: 'Accounts laptop' });
    await end(first);
    const stolen = orderFor(code, { deviceName: 'Front counter', turnId: second.turnId });
    expect(await askForRun(console.context, { ...STRANGER, code }, stolen, ORIGIN)).toMatchObject({
      fault: { code: 'turn-over' },
    });
    const own = { deviceId: second.deviceId, deviceName: null, turnId: second.turnId };
    await end(await granted(own));
    const twice = orderFor(code, own);
    expect(await askForRun(console.context, await visitorOf(console, twice), twice, ORIGIN)).toMatchObject({
      fault: { code: 'turn-over' },
    });
  });

  it('ask a device that stands by, with the name of who asks, and keep that with the run', async () => {
    const desk = await standing('Front counter');
    await queueTurns(console.context, 'Ines', round([desk.id]));
    expect(desk.told).toEqual([
      {
        ...{ kind: 'asked', turnId: expect.any(String), by: 'Ines', reach: 'internet', profile: 'quick' },
        ...{ inMs: NOTICE_MS, pacedMbps: null },
      },
    ]);
    const run = await takeUp(desk, asked(desk.told)[0]!);
    expect((await console.context.store.runs.byId(run.runId))!.askedBy).toBe('Ines');
  });

  it('go through a whole round: each reach after the other, each device so many times, never two over one line', async () => {
    const devices = [await standing('Press desk'), await standing('Front counter')];
    const ids = devices.map(({ id }) => id);
    const queued = await queueTurns(console.context, 'Ines', round(ids, { reaches: ['local', 'internet'], times: 3 }));
    expect(queued).toEqual({ ok: true, value: 12 });
    const done: string[] = [];
    for (let step = 0; step < 12; step += 1) {
      const open = await console.context.store.turns.open();
      const now = open.filter(({ status }) => status === 'asked');
      const used = now.flatMap(({ deviceId, needs }) => [deviceId, ...needs]);
      expect(new Set(used).size).toBe(used.length);
      const turn = now[0]!;
      const device = devices.find(({ id }) => id === turn.deviceId)!;
      expect(asked(device.told).at(-1)).toBe(turn.id);
      await end(await takeUp(device, turn.id, turn.reach));
      done.push(`${turn.deviceName} ${turn.reach}`);
      await moveQueue(console.context);
    }
    expect(await trayOf(console.context, siteId)).toEqual([]);
    for (const device of ['Press desk', 'Front counter'])
      expect(done.filter((each) => each.startsWith(device)).map((each) => each.split(' ').at(-1))).toEqual([
        ...['local', 'local', 'local', 'internet', 'internet', 'internet'],
      ]);
  });

  it('pass over a device that sleeps, and ask it when it is back', async () => {
    const [sleeper, other] = [await standing('Glue room tablet'), await standing('Front counter')];
    await sleeper.session.leave();
    await queueTurns(console.context, 'Ines', round([sleeper.id, other.id]));
    expect(sleeper.told).toEqual([]);
    const [first] = await trayOf(console.context, siteId);
    expect(first!.state).toMatchObject({ status: 'waiting', why: 'the device is not standing by' });
    await end(await takeUp(other, asked(other.told)[0]!));
    const told: StandingOrder[] = [];
    await standBy(console.context, sleeper.cookie, { send: (order) => told.push(order), close: () => undefined });
    await moveQueue(console.context);
    expect(asked(told)).toHaveLength(1);
  });

  it('go on to the next when the device refuses, or does not take its turn up in time', async () => {
    const [one, two] = [await standing('Press desk'), await standing('Front counter')];
    await queueTurns(console.context, 'Ines', round([one.id, two.id], { times: 2 }));
    await one.session.hear(JSON.stringify({ kind: 'refuse', turnId: asked(one.told)[0] }));
    await moveQueue(console.context);
    expect(asked(two.told)).toHaveLength(1);
    console.advanceMs(NOTICE_MS + ASKS_WITHIN_MS + 1);
    await moveQueue(console.context);
    expect(asked(one.told)).toHaveLength(2);
  });

  it('can be withdrawn, and the device is told', async () => {
    const desk = await standing('Front counter');
    await queueTurns(console.context, 'Ines', round([desk.id]));
    await withdrawTurn(console.context, asked(desk.told)[0]!);
    expect(desk.told.at(-1)).toMatchObject({ kind: 'withdrawn' });
    expect(await trayOf(console.context, siteId)).toEqual([]);
  });

  it('start a together-run on all its devices at the same instant, though they share the line', async () => {
    const devices = [await standing('Press desk'), await standing('Front counter'), await standing('Scan room')];
    await queueTurns(
      console.context,
      'Ines',
      round(
        devices.map(({ id }) => id),
        { together: true },
      ),
    );
    const turnIds = devices.map(({ told }) => asked(told)[0]!);
    expect(turnIds.every(Boolean)).toBe(true);
    const runs = [];
    for (const [index, device] of devices.entries()) runs.push(await takeUp(device, turnIds[index]!));
    const stored = await Promise.all(runs.map(({ runId }) => console.context.store.runs.byId(runId)));
    expect(new Set(stored.map((run) => run!.together)).size).toBe(1);
    expect(stored[0]!.together).not.toBeNull();
    // Whoever shares the line meanwhile belongs to nobody's set.
    expect(new Set(stored.map((run) => run!.setId)).size).toBe(3);
  });

  it('outlive a restart of the console', async () => {
    const desk = await standing('Front counter');
    await queueTurns(console.context, 'Ines', round([desk.id], { times: 2 }));
    await console.reopen();
    await resumeQueue(console.context);
    expect((await trayOf(console.context, siteId)).map(({ state }) => state.status)).toEqual(['waiting', 'waiting']);
    const told: StandingOrder[] = [];
    await standBy(console.context, desk.cookie, { send: (order) => told.push(order), close: () => undefined });
    await moveQueue(console.context);
    expect(asked(told)).toHaveLength(1);
  });

  it('refuse a round that cannot be, and queue nothing of it', async () => {
    const desk = await standing('Front counter');
    expect(await queueTurns(console.context, 'Ines', round([desk.id, 'nobody']))).toMatchObject({
      fault: { code: 'device-unknown' },
    });
    expect(await queueTurns(console.context, 'Ines', round([desk.id], { reaches: ['tunnel'] }))).toMatchObject({
      fault: { code: 'peer-missing', facts: { reach: 'tunnel' } },
    });
    expect(await trayOf(console.context, siteId)).toEqual([]);
  });

  it('let one tab of a device stand by, the newest', async () => {
    const desk = await standing('Front counter');
    await standBy(console.context, desk.cookie, { send: () => undefined, close: () => undefined });
    expect(desk.told).toEqual([{ kind: 'dismissed', reason: 'elsewhere' }]);
    await desk.session.leave();
    expect(console.context.standing.isPresent(desk.id)).toBe(true);
  });

  it('keeps devices on one access point from measuring at once, and lets those on another', async () => {
    const wifi = (accessPoint: string) => ({ medium: 'wifi', band: '5', linkRateBps: null, accessPoint }) as const;
    await granted({ deviceName: 'Tablet', reach: 'local', link: wifi('Glue room ceiling') });
    await end(await granted({ deviceName: 'Phone', reach: 'internet', link: wifi('Office') }));
    const second = await waiting({ deviceName: 'Laptop', reach: 'internet', link: wifi('glue room ceiling') });
    expect(second.why).toBe('Tablet is measuring on the same access point');
  });
});
