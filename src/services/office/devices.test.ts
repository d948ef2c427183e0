import { seededRandom } from '@/core';
import { simulateSamples } from '@/programs/demo/samples';
import {
  cookieFor,
  deviceForm,
  finished,
  furnish,
  GOOD_LINE,
  measured,
  openTestConsole,
  orderFor,
  startRun,
  STRANGER,
  type TestConsole,
} from '../console/console-for-tests';
import { deviceOfCookie } from '../access/device-cookie';
import { mergeDevices, saveDevice } from './devices';
import { handInRun } from '../runs/hand-in-run';
import { ledgerOf } from '../views/ledger';
import { removedLately, undoRemoval } from './removals';
import { setUpOf } from '../views/set-up';

const ORIGIN = 'http://192.0.2.20:4870';
describe('devices', () => {
  let console: TestConsole;
  let siteId: string;
  let code: string;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId, code } = await furnish(console));
  });
  afterEach(() => console.close());

  const run = (deviceName: string) => measured(console, orderFor(code, { deviceName }));
  const runsOf = async (deviceId: string) => {
    const ledger = await ledgerOf(console.context, { deviceId });
    return ledger.ok ? ledger.value.runs.map((run) => run.id) : [];
  };

  it('keep what they are, their notes and all that is known of their link', async () => {
    const wifi = {
      ...{ linkChoice: 'wifi-5', negotiatedMbps: '', linkRateMbps: '866,7', channel: '44', widthMHz: '80' },
      ...{ signalDbm: '-58', accessPoint: 'office ceiling', sharedAir: 'on' },
    };
    await saveDevice(console.context, siteId, null, deviceForm({ ...wifi, kind: 'laptop', notes: 'hinge is loose' }));
    expect((await setUpOf(console.context)).devices[0]).toMatchObject({
      ...{ kind: 'laptop', notes: 'hinge is loose' },
      link: {
        ...{ medium: 'wifi', band: '5', linkRateBps: 866.7e6, channel: 44, widthMHz: 80, signalDbm: -58 },
        ...{ accessPoint: 'office ceiling', sharedAir: true },
      },
    });
  });

  it('lose neither kind nor notes when they measure', async () => {
    const { deviceId } = await run('Press desk');
    await saveDevice(console.context, siteId, deviceId, deviceForm({ kind: 'desktop', notes: 'by the window' }));
    await startRun(console.context, { ...STRANGER, code }, orderFor(code, { deviceId, deviceName: null }), ORIGIN);
    expect((await setUpOf(console.context)).devices[0]).toMatchObject({ kind: 'desktop', notes: 'by the window' });
  });

  describe('that turn out to be one', () => {
    it('are one from then on: runs, cookie and all; and two again when it is undone', async () => {
      const [first, second] = [await run('Desk'), await run('Press desk')];
      const cookie = await cookieFor(console, first.deviceId);
      expect((await mergeDevices(console.context, first.deviceId, second.deviceId)).ok).toBe(true);
      expect((await setUpOf(console.context)).devices.map(({ name }) => name)).toEqual(['Press desk']);
      expect(new Set(await runsOf(second.deviceId))).toEqual(new Set([first.runId, second.runId]));
      expect(await deviceOfCookie(console.context, cookie)).toMatchObject({ id: second.deviceId });
      // Its old page goes on under its old id.
      const again = await startRun(
        console.context,
        { ...STRANGER, cookie },
        orderFor(null, { deviceId: first.deviceId, deviceName: null }),
        ORIGIN,
      );
      expect(again).toMatchObject({ ok: true, value: { deviceId: second.deviceId } });

      const [removal] = await removedLately(console.context, siteId);
      await undoRemoval(console.context, removal!.id);
      expect(await runsOf(first.deviceId)).toEqual([first.runId]);
      expect(await deviceOfCookie(console.context, cookie)).toMatchObject({ id: first.deviceId });
    });

    it('come apart again in whatever order a chain of mergers is undone', async () => {
      for (const order of [
        [0, 1],
        [1, 0],
      ]) {
        const runs = [await run(`A${order[0]}`), await run(`B${order[0]}`), await run(`C${order[0]}`)];
        const [a, b, c] = runs.map(({ deviceId }) => deviceId) as [string, string, string];
        const cookies = await Promise.all([a, b, c].map((id) => cookieFor(console, id)));
        const idOf = async (cookie: string) => (await deviceOfCookie(console.context, cookie))?.id;
        await mergeDevices(console.context, a, b);
        await mergeDevices(console.context, b, c);
        expect(await Promise.all(cookies.map(idOf))).toEqual([c, c, c]);
        const removed = [a, b];
        await undoRemoval(console.context, removed[order[0]!]!);
        // A went back alone, or B with what was A's.
        expect(await Promise.all(cookies.map(idOf))).toEqual(order[0] === 0 ? [a, c, c] : [b, b, c]);
        await undoRemoval(console.context, removed[order[1]!]!);
        expect(await Promise.all(cookies.map(idOf))).toEqual([a, b, c]);
        for (const [index, id] of [a, b, c].entries()) expect(await runsOf(id)).toEqual([runs[index]!.runId]);
      }
    });

    it('keep the name that each run had on its day', async () => {
      const [first, second] = [await run('Desk'), await run('Press desk')];
      await mergeDevices(console.context, first.deviceId, second.deviceId);
      expect(await console.context.store.runs.byId(first.runId)).toMatchObject({ deviceName: 'Desk' });
    });

    it('must be two, of one office', async () => {
      const { deviceId } = await run('Desk');
      for (const into of [deviceId, 'nobody'])
        expect(await mergeDevices(console.context, deviceId, into)).toMatchObject({
          fault: { code: 'device-unknown' },
        });
    });
  });

  it('keep the console’s time for their runs when their own clock is hours off', async () => {
    const asked = await startRun(console.context, { ...STRANGER, code }, orderFor(code), ORIGIN);
    if (!asked.ok) throw new Error(asked.fault.code);
    const startedMs = console.context.wallMs();
    console.advanceMs(20_000);
    const samples = simulateSamples(GOOD_LINE, seededRandom(5));
    const client = {
      ...{ wallMs: startedMs + 5 * 3600_000, wallSpanMs: 13_000, spanMs: 13_000, stalls: [] },
      ...{ selfReadBps: null, otherTraffic: null, powerSaving: null },
    };
    await handInRun(console.context, asked.value.runId, asked.value.runKey, finished({ ...samples, client }));
    const stored = (await console.context.store.runs.byId(asked.value.runId))!;
    expect(stored).toMatchObject({ status: 'finished', startedAtMs: startedMs });
    expect(stored.endedAtMs! - startedMs).toBeLessThanOrEqual(20_000);
  });

  it('of the demo measure behind a practice line only while the demo plays them, not when a browser takes their name', async () => {
    const { deviceId } = await run('Press desk');
    const device = (await console.context.store.sites.device(deviceId))!;
    await console.context.store.sites.saveDevice({ ...device, simulated: true });
    const local = orderFor(code, { deviceId, deviceName: null, reach: 'local' });
    const verdictOf = async (userAgent: string) => {
      const { runId } = await measured(console, local, GOOD_LINE, { sameMachine: true, userAgent });
      const stored = (await console.context.store.runs.byId(runId))!;
      return [stored.practice, stored.verdict];
    };
    expect(await verdictOf('Mozilla/5.0')).toEqual([false, 'no verdict']);
    expect(await verdictOf('bent-straw-agent/demo node/20.20.2')).toEqual([true, 'starved']);
  });
});
