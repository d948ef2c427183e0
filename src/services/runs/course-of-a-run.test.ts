import { copyFileSync, existsSync } from 'node:fs';
import { METHOD_VERSION, seededRandom, type RunSamples } from '@/core';
import { simulateSamples } from '@/programs/demo/samples';
import { NEW_PEER, openStore } from '@/store';
import { checkTicket } from '@/wire/peer/ticket';
import { boardOf } from '../views/board';
import {
  cookieFor,
  deviceForm,
  finished,
  furnish,
  LINE_FORM,
  openTestConsole,
  orderFor,
  startRun,
  STRANGER,
  TECHNICIAN,
  visitorOf,
  type TestConsole,
} from '../console/console-for-tests';
import { handInRun, noteRunAlive } from './hand-in-run';
import { judgeSomeAnew } from './judge-anew';
import { saveLine } from '../office/lines';
import { CODE_LENGTH, CODE_LETTERS, newJoinCode, readJoinCode } from '../access/join-codes';
import { hereToken, openHere } from '../access/here-link';
import { joinPageOf } from '../views/join-page';
import { ledgerOf } from '../views/ledger';
import { peerBaseUrl } from '@/wire/address';
import { runPageOf, samplesDocumentOf } from '../views/run-page';
import { removeDevice } from '../office/removals';
import { openDevice, saveDevice } from '../office/devices';
import { setUpOf } from '../views/set-up';
import { USE_RATES } from '../console/use-limit';
import { SILENT_AFTER_MS, sweepSilentRuns } from './sweep-silent-runs';
import { askForRun, stopTurn } from '../turns';

const ORIGIN = 'http://192.0.2.20:4870';
const GOOD_LINE = {
  idleMs: 15,
  jitterMs: 0.4,
  down: { rateBps: 486e6, queueMs: 25, swing: 0.004, dips: 0 },
  up: { rateBps: 97e6, queueMs: 212, swing: 0.004, dips: 0 },
};
const samples = (): RunSamples => simulateSamples(GOOD_LINE, seededRandom(5));

describe('the console', () => {
  let console: TestConsole;
  let code: string;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ code } = await furnish(console));
  });
  afterEach(() => console.close());

  async function granted(order = orderFor(code)) {
    const started = await startRun(console.context, await visitorOf(console, order), order, ORIGIN);
    if (!started.ok) throw new Error(started.fault.code);
    return started.value;
  }

  async function refused(order: Parameters<typeof startRun>[2], visitor?: Parameters<typeof startRun>[1]) {
    const started = await startRun(console.context, visitor ?? (await visitorOf(console, order)), order, ORIGIN);
    return started.ok ? 'granted' : started.fault.code;
  }

  describe('joining', () => {
    it('lets in by the code, however it is typed, and offers the farthest reach first', async () => {
      const typed = `${code.slice(0, 3).toLowerCase()}-${code.slice(3)}`;
      const page = await joinPageOf(console.context, { ...STRANGER, code: typed });
      expect(page).toMatchObject({
        ok: true,
        value: {
          siteName: 'Larkspur Bindery',
          code,
          knownDeviceId: null,
          reaches: [{ reach: 'internet' }, { reach: 'local' }],
        },
      });
    });

    it('turns away a wrong code, and a stranger without any', async () => {
      const wrong = await joinPageOf(console.context, { ...STRANGER, code: 'AAAAAA' });
      expect(wrong).toMatchObject({ ok: false, fault: { code: 'code-unknown' } });
      expect(await joinPageOf(console.context, STRANGER)).toMatchObject({ ok: false, fault: { code: 'not-joined' } });
    });

    it('lets in without a code whoever opened the link of this machine’s terminal, and nobody for an address', async () => {
      const { context } = console;
      const notJoined = { ok: false, fault: { code: 'not-joined' } };
      for (const address of ['127.0.0.1', '::1', '::ffff:127.0.0.1'])
        expect(await joinPageOf(context, { ...STRANGER, address })).toMatchObject(notJoined);
      const token = hereToken(context.signingKey, context.wallMs());
      const cookie = openHere(context, token)!;
      expect((await joinPageOf(context, { ...STRANGER, here: cookie })).ok).toBe(true);
      // Once only, not for long, and not for one who made it up.
      expect(openHere(context, token)).toBeNull();
      const late = hereToken(context.signingKey, context.wallMs() - 13 * 3600_000);
      expect(openHere(context, late)).toBeNull();
      for (const forged of ['', 'x', `${token}x`, `a${token}`, token.split('.')[0]!, `abc-${9e15}.${'A'.repeat(43)}`])
        expect(openHere(context, forged)).toBeNull();
      const [id] = cookie.split('.');
      for (const here of ['', id!, `${id}.${'A'.repeat(43)}`, `x${cookie}`])
        expect(await joinPageOf(context, { ...STRANGER, here })).toMatchObject(notJoined);
    });

    it('knows a device again by its cookie, and no other by a forged one', async () => {
      const { deviceId } = await granted();
      const cookie = await cookieFor(console, deviceId);
      const again = await joinPageOf(console.context, { ...STRANGER, cookie });
      expect(again).toMatchObject({
        ok: true,
        value: { knownDeviceId: deviceId, devices: [{ name: 'Press desk', spotName: 'Workshop' }] },
      });
      const forged = await joinPageOf(console.context, { ...STRANGER, cookie: `${deviceId}.${'A'.repeat(43)}` });
      expect(forged).toMatchObject({ ok: false, fault: { code: 'not-joined' } });
    });

    it('has codes without letters that are mistaken for others', () => {
      expect(CODE_LETTERS).not.toMatch(/[01OIL]/);
      expect(newJoinCode()).toHaveLength(CODE_LENGTH);
      expect(readJoinCode(' k4m-9xq ')).toBe('K4M9XQ');
    });
  });

  describe('starting a run', () => {
    it('grants a ticket that a peer accepts, and the peer’s address as the device reaches it', async () => {
      const grant = await granted();
      const checked = checkTicket(grant.ticket, [console.publicKey], console.context.wallMs());
      expect(checked).toMatchObject({ ok: true, value: { runId: grant.runId, deviceId: grant.deviceId } });
      expect(grant.peer).toEqual({ name: 'Hilltop exchange', baseUrl: 'http://192.0.2.20:4871' });
      expect(grant.yardstick).toEqual({ downBps: 500e6, upBps: 100e6 });
      expect((await granted(orderFor(code, { deviceName: 'Other', reach: 'local' }))).peer.baseUrl).toBe(ORIGIN);
    });

    it('is refused to strangers, for unknown devices, taken names and missing peers', async () => {
      expect(await refused(orderFor(null))).toBe('not-joined');
      expect(await refused(orderFor('AAAAAA'))).toBe('code-unknown');
      expect(await refused(orderFor(code, { deviceId: 'nobody' }))).toBe('device-unknown');
      expect(await refused(orderFor(code, { reach: 'tunnel' }))).toBe('peer-missing');
      await granted();
      expect(await refused(orderFor(code, { deviceName: 'press DESK' }))).toBe('device-taken');
    });

    it('is refused over https to a peer without it, which a browser would not let the page reach', async () => {
      const order = orderFor(code, { reach: 'tunnel' });
      const asked = async (origin: string) => {
        const answer = await startRun(console.context, await visitorOf(console, order), order, origin);
        return answer.ok ? answer.value.peer.baseUrl : answer.fault.code;
      };
      const [site] = await console.context.store.sites.all();
      await console.context.store.sites.savePeer({
        ...{ ...NEW_PEER, id: 'far', siteId: site!.id, name: 'Quay peer', reach: 'tunnel' },
        address: 'http://198.51.100.9:4870',
      });
      expect(await asked('https://192.0.2.20:4870')).toBe('peer-plain');
      // Over plain http nothing is in the way.
      expect(await asked('http://192.0.2.20:4870')).toBe('http://198.51.100.9:4870');
    });

    it('is refused while another tab of the device measures, and possible again when that fell silent', async () => {
      const { deviceId, runId } = await granted();
      const again = orderFor(code, { deviceId, deviceName: null });
      expect(await refused(again)).toBe('device-busy');
      console.advanceMs(SILENT_AFTER_MS + 1);
      expect(await refused(again)).toBe('granted');
      expect(await console.context.store.runs.byId(runId)).toMatchObject({
        status: 'unfinished',
        reason: 'device-vanished',
      });
    });

    it('lets nobody become a device that a browser is already, unless the technician opens it for an hour', async () => {
      const { deviceId } = await granted();
      console.advanceMs(SILENT_AFTER_MS + 1);
      const order = orderFor(code, { deviceId, deviceName: null });
      const other = { ...STRANGER, code };
      const page = await joinPageOf(console.context, other);
      expect(page).toMatchObject({ ok: true, value: { devices: [] } });
      expect(await refused(order, other)).toBe('device-taken');
      // Nor by the name, which says nothing about who holds it.
      expect(await refused(orderFor(code), other)).toBe('device-taken');
      await openDevice(console.context, deviceId);
      console.advanceMs(3600_000 + 1);
      expect(await refused(order, other)).toBe('device-taken');
      await openDevice(console.context, deviceId);
      expect(await refused(order, other)).toBe('granted');
      // Whoever came first has it now: the door is closed behind him.
      console.advanceMs(SILENT_AFTER_MS + 1);
      expect(await refused(order, other)).toBe('device-taken');
      expect(await refused(order)).toBe('granted');
    });

    it('lets anybody with the code become a device that the technician only wrote down', async () => {
      const { context } = console;
      const [site] = await context.store.sites.all();
      const saved = await saveDevice(context, site!.id, null, deviceForm({ name: 'Scan room workstation' }));
      if (!saved.ok) throw new Error(saved.fault.code);
      const order = orderFor(code, { deviceId: saved.value.id, deviceName: null });
      expect(await refused(order, { ...STRANGER, code })).toBe('granted');
    });

    it('lets an address set up so many devices and no more, says when the next may be, and keeps the others free', async () => {
      const { most, overMs } = USE_RATES.devicesOfAddress;
      const join = (index: number, address: string = STRANGER.address) =>
        askForRun(
          console.context,
          { ...STRANGER, code, address },
          orderFor(code, { deviceName: `Tablet ${index}` }),
          ORIGIN,
        );
      for (let index = 0; index < most; index += 1) expect((await join(index)).ok).toBe(true);
      const refusal = await join(most);
      expect(refusal).toMatchObject({ ok: false, fault: { code: 'too-many-devices' } });
      expect((await join(most, '198.51.100.77')).ok).toBe(true);
      console.advanceMs(overMs);
      expect((await join(most + 1)).ok).toBe(true);
    });

    it('lets a device begin so many runs and no more', async () => {
      const { most, overMs } = USE_RATES.runsOfDevice;
      const first = await granted();
      const order = orderFor(code, { deviceId: first.deviceId, deviceName: null });
      let running = first;
      for (let runs = 1; runs < most; runs += 1) {
        await handInRun(console.context, running.runId, running.runKey, finished(samples()));
        running = await granted(order);
      }
      await handInRun(console.context, running.runId, running.runKey, finished(samples()));
      expect(await refused(order)).toBe('too-many-runs');
      console.advanceMs(overMs);
      expect(await refused(order)).toBe('granted');
    });
  });

  describe('handing in', () => {
    it('writes a record whose figures come from the samples, and finds it on the board and in the ledger', async () => {
      const { runId, runKey } = await granted();
      const answer = await handInRun(console.context, runId, runKey, finished(samples()));
      expect(answer).toMatchObject({
        ok: true,
        value: { status: 'finished', held: 'The plan is 500 down and 100 up: as paid for both ways.' },
      });
      const run = (await console.context.store.runs.byId(runId))!;
      expect(run.downBps! / 486e6).toBeCloseTo(1, 2);
      expect(run.addedMs).toBeGreaterThan(190);
      expect(run.report!.up.rate!.steadyBps / 97e6).toBeCloseTo(1, 2);
      const board = await boardOf(console.context);
      expect(board).toMatchObject({
        ok: true,
        value: { groups: [{ spotName: 'Workshop', rows: [{ deviceName: 'Press desk' }] }] },
      });
      const cells = board.ok ? board.value.groups[0]!.rows[0]!.cells : [];
      expect(cells.flatMap(({ cell }) => cell ?? [])).toMatchObject([{ runId, verdict: 'full', rating: 'collapsed' }]);
      expect(await ledgerOf(console.context, {})).toMatchObject({
        ok: true,
        value: { count: 1, runs: [{ id: runId, verdict: 'full' }] },
      });
    });

    it('is there, samples and all, when the database is opened again', async () => {
      const { runId, runKey } = await granted();
      const handed = samples();
      await handInRun(console.context, runId, runKey, finished(handed));
      await console.reopen();
      const page = await runPageOf(console.context, runId);
      expect(page).toMatchObject({
        ok: true,
        value: { unfinished: null, run: { demo: false, practice: true, plan: { downBps: 500e6 } } },
      });
      expect(await samplesDocumentOf(console.context, TECHNICIAN, runId)).toMatchObject({
        ok: true,
        value: { samples: handed, methodVersion: METHOD_VERSION },
      });
    });

    it('may be repeated and changes nothing the second time', async () => {
      const { runId, runKey } = await granted();
      const first = await handInRun(console.context, runId, runKey, finished(samples()));
      const slower = simulateSamples({ ...GOOD_LINE, down: { ...GOOD_LINE.down, rateBps: 1e6 } }, seededRandom(1));
      expect(await handInRun(console.context, runId, runKey, finished(slower))).toEqual(first);
      const cancelled = { outcome: 'unfinished', reason: 'cancelled', samples: null, facts: null } as const;
      expect(await handInRun(console.context, runId, runKey, cancelled)).toEqual(first);
    });

    it('is only for whoever was granted the run', async () => {
      const mine = await granted();
      const other = await granted(orderFor(code, { deviceName: 'Scan room', reach: 'local' }));
      expect(await handInRun(console.context, mine.runId, other.runKey, finished(samples()))).toMatchObject({
        ok: false,
        fault: { code: 'run-key-wrong' },
      });
      expect((await noteRunAlive(console.context, mine.runId, 'guess')).running).toBe(false);
    });

    it('records an ended run as unfinished with its reason and never with a figure', async () => {
      const { runId, runKey } = await granted();
      const partial = { ...samples(), upload: null, phases: samples().phases.slice(0, 2) };
      await handInRun(console.context, runId, runKey, {
        outcome: 'unfinished',
        reason: 'peer-gone',
        samples: partial,
        facts: null,
      });
      const run = (await console.context.store.runs.byId(runId))!;
      expect(run).toMatchObject({
        status: 'unfinished',
        reason: 'peer-gone',
        downBps: null,
        upBps: null,
        verdict: null,
      });
      const page = await runPageOf(console.context, runId);
      expect(page).toMatchObject({
        ok: true,
        value: {
          result: null,
          unfinished: expect.stringMatching(/connection to the peer broke/),
          measuredBefore: expect.stringMatching(/^\d+ Mb\/s down\. Upload was not measured\./),
        },
      });
    });

    it('does not take a run for finished that lacks a direction', async () => {
      const { runId, runKey } = await granted();
      const answer = await handInRun(console.context, runId, runKey, finished({ ...samples(), upload: null }));
      expect(answer).toMatchObject({ ok: true, value: { status: 'unfinished', result: null } });
      expect(await console.context.store.runs.byId(runId)).toMatchObject({ reason: 'no-upload', downBps: null });
    });

    it('gives a run whose device fell silent up, and takes its result when it comes after all', async () => {
      const { runId, runKey } = await granted();
      console.advanceMs(SILENT_AFTER_MS - 1000);
      expect((await noteRunAlive(console.context, runId, runKey)).running).toBe(true);
      console.advanceMs(SILENT_AFTER_MS - 1000);
      expect(await sweepSilentRuns(console.context)).toBe(0);
      console.advanceMs(2000);
      expect(await sweepSilentRuns(console.context)).toBe(1);
      expect(await console.context.store.runs.byId(runId)).toMatchObject({
        status: 'unfinished',
        reason: 'device-vanished',
      });
      await handInRun(console.context, runId, runKey, finished(samples()));
      expect(await console.context.store.runs.byId(runId)).toMatchObject({
        status: 'finished',
        reason: null,
        verdict: 'full',
      });
    });

    it('gives running devices their usual time again after the console was restarted', async () => {
      await granted();
      console.advanceMs(30_000);
      await console.reopen();
      expect(await sweepSilentRuns(console.context)).toBe(0);
      console.advanceMs(SILENT_AFTER_MS + 1000);
      expect(await sweepSilentRuns(console.context)).toBe(1);
    });

    it('ends with its ticket, whoever still speaks of it and however often the console restarts', async () => {
      const { runId, runKey } = await granted();
      const { untilMs, startedAtMs } = (await console.context.store.runs.byId(runId))!;
      expect(untilMs! - startedAtMs).toBe(150_000);
      for (let spent = 0; spent < 150_000; spent += 10_000) {
        console.advanceMs(10_000);
        await console.reopen();
        await noteRunAlive(console.context, runId, runKey);
        expect(await sweepSilentRuns(console.context)).toBe(0);
      }
      console.advanceMs(1000);
      await noteRunAlive(console.context, runId, runKey);
      expect(await sweepSilentRuns(console.context)).toBe(1);
    });

    it('is stopped with its next sign of life when its turn is taken back, and handed in as cancelled', async () => {
      const { runId, runKey } = await granted();
      const alive = () => noteRunAlive(console.context, runId, runKey);
      expect(await alive()).toMatchObject({ running: true, stop: false });
      const [turn] = await console.context.store.turns.open();
      await stopTurn(console.context, turn!.id);
      expect(await alive()).toMatchObject({ running: true, stop: true });
      await handInRun(console.context, runId, runKey, {
        ...{ outcome: 'unfinished', reason: 'cancelled', samples: null, facts: null },
      });
      expect(await console.context.store.runs.byId(runId)).toMatchObject({ status: 'unfinished', reason: 'cancelled' });
      expect(await alive()).toEqual({ running: false, watched: false, stop: false });
    });

    it('costs no writes while it goes on', async () => {
      const { runId, runKey } = await granted();
      const before = (await console.context.store.runs.byId(runId))!.lastSeenAtMs;
      console.advanceMs(3000);
      expect((await noteRunAlive(console.context, runId, runKey)).running).toBe(true);
      expect((await console.context.store.runs.byId(runId))!.lastSeenAtMs).toBe(before);
    });
  });

  describe('the record', () => {
    it('keeps the plan of its day and the device’s name when both are changed, and when the device is removed', async () => {
      const { runId, runKey, deviceId } = await granted();
      await handInRun(console.context, runId, runKey, finished(samples()));
      const shown = async () => {
        const page = await runPageOf(console.context, runId);
        return page.ok ? [page.value.run.deviceName, page.value.run.plan?.downBps] : null;
      };
      const { site, lines } = await setUpOf(console.context);
      console.advanceMs(24 * 3600_000);
      const validFrom = console.context.wallMs();
      const form = { ...LINE_FORM, downMbps: 1000, validFrom, shown: lines[0]!.shown };
      expect((await saveLine(console.context, site!.id, lines[0]!.id, form)).ok).toBe(true);
      await saveDevice(console.context, site!.id, deviceId, deviceForm({ name: 'Renamed desk' }));
      expect((await console.context.store.sites.device(deviceId))!.name).toBe('Renamed desk');
      expect((await setUpOf(console.context)).lines[0]!.plan?.downBps).toBe(1000e6);
      await judgeSomeAnew(console.context);
      expect(await shown()).toEqual(['Press desk', 500e6]);
      await removeDevice(console.context, deviceId);
      expect(await shown()).toEqual(['Press desk', 500e6]);
      expect(await ledgerOf(console.context, {})).toMatchObject({ ok: true, value: { count: 1 } });
    });

    it('is narrowed by device, link and reach in the ledger', async () => {
      for (const [deviceName, reach] of [
        ['A', 'internet'],
        ['B', 'internet'],
        ['B2', 'local'],
      ] as const) {
        const { runId, runKey } = await granted(orderFor(code, { deviceName, reach }));
        await handInRun(console.context, runId, runKey, finished(samples()));
      }
      const count = async (query: Parameters<typeof ledgerOf>[1]) => {
        const ledger = await ledgerOf(console.context, query);
        return ledger.ok ? ledger.value.count : null;
      };
      expect(await count({ reach: 'local' })).toBe(1);
      expect(await count({ linkKind: 'wifi-5' })).toBe(0);
      expect(await count({ linkKind: 'wired', reach: 'internet' })).toBe(2);
      expect(await count({ deviceId: 'nobody' })).toBe(0);
    });

    it('is not found under an unknown id, and has no samples when nothing was measured', async () => {
      expect(await runPageOf(console.context, 'nothing')).toMatchObject({ ok: false, fault: { code: 'run-unknown' } });
      const { runId, runKey } = await granted();
      await handInRun(console.context, runId, runKey, {
        outcome: 'unfinished',
        reason: 'cancelled',
        samples: null,
        facts: null,
      });
      expect(await samplesDocumentOf(console.context, TECHNICIAN, runId)).toMatchObject({
        ok: false,
        fault: { code: 'samples-missing' },
      });
    });
  });

  describe('the set-up', () => {
    it('keeps two devices from having one name, and gives spots by name', async () => {
      const { siteId } = { siteId: (await setUpOf(console.context)).site!.id };
      const form = (name: string, spotName = ' workshop ') => deviceForm({ name, spotName });
      expect((await saveDevice(console.context, siteId, null, form('Press desk'))).ok).toBe(true);
      const second = await saveDevice(console.context, siteId, null, form('PRESS DESK'));
      expect(second).toMatchObject({ ok: false, fault: { code: 'name-taken' } });
      await saveDevice(console.context, siteId, null, form('Bench', 'Workshop'));
      const { spots, devices } = await setUpOf(console.context);
      expect(spots.map((spot) => spot.name)).toEqual(['workshop']);
      expect(devices.map((device) => device.spotName)).toEqual(['workshop', 'workshop']);
    });
  });
});

describe('an empty console', () => {
  it('has no board, no ledger and nobody to let in yet', async () => {
    const console = await openTestConsole();
    expect(await boardOf(console.context)).toMatchObject({ ok: false, fault: { code: 'site-missing' } });
    expect(await ledgerOf(console.context, {})).toMatchObject({ ok: false, fault: { code: 'site-missing' } });
    const { context } = console;
    const here = openHere(context, hereToken(context.signingKey, context.wallMs()));
    expect(await joinPageOf(context, { ...STRANGER, here })).toMatchObject({
      ok: false,
      fault: { code: 'site-missing' },
    });
    await console.close();
  });
});

describe('the database file', () => {
  it('is opened again as it was, without a copy when nothing has to be changed', async () => {
    const console = await openTestConsole();
    await furnish(console);
    await console.reopen();
    expect((await setUpOf(console.context)).site).toMatchObject({ name: 'Larkspur Bindery' });
    expect(existsSync(`${console.file}.before-0001-first-tables`)).toBe(false);
    await console.close();
  });

  it('holds a handed-in run in full in its write-ahead log: a copy taken at once has it', async () => {
    const console = await openTestConsole();
    const { code } = await furnish(console);
    const started = await startRun(console.context, STRANGER, orderFor(code), ORIGIN);
    const { runId, runKey } = started.ok ? started.value : { runId: '', runKey: '' };
    await handInRun(console.context, runId, runKey, finished(samples()));
    // What kill -9 would leave: the files as they are now, with the console still running.
    const copy = `${console.file}.killed`;
    copyFileSync(console.file, copy);
    copyFileSync(`${console.file}-wal`, `${copy}-wal`);
    const found = await openStore(copy);
    expect(await found.runs.byId(runId)).toMatchObject({ status: 'finished', verdict: 'full' });
    await found.close();
    await console.close();
  });
});

describe('a peer’s address', () => {
  it.each([
    ['/', 'http://192.0.2.20:4870'],
    [':4871', 'http://192.0.2.20:4871'],
    ['http://198.51.100.7:4870/', 'http://198.51.100.7:4870'],
    ['ftp://198.51.100.7', null],
    [':99999', null],
    ['nonsense', null],
  ])('%s, for a device that opened the console at 192.0.2.20, is %s', (address, url) => {
    expect(peerBaseUrl(address, ORIGIN)).toBe(url);
  });
});
