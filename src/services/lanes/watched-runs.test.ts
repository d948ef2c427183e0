import { seededRandom, type CounterSeries, type RunSamples } from '@/core';
import { simulateSamples } from '@/programs/demo/samples';
import {
  finished,
  furnish,
  GOOD_LINE,
  handedIn,
  openTestConsole,
  orderFor,
  startRun,
  visitorOf,
  type TestConsole,
} from '../console/console-for-tests';
import type { HeardNow } from '../console/lane-beats';
import { handInRun, noteRunAlive } from '../runs';
import { saveOffice } from '../office';
import { beginMark, endMark, watchBeats, watchedSpanOf } from '.';

const SECOND_MS = 1000;
const HOUR_MS = 3600_000;

/** A counter that grows by these rates, Mb/s, a second each. */
function growing(fromMs: number, mbps: readonly number[]): CounterSeries {
  let bytes = 0;
  const counted = mbps.flatMap((rate) => Array.from({ length: 10 }, () => (bytes += (rate * 1e6) / 80)));
  return { atMs: [fromMs, ...counted.map((_, step) => fromMs + 100 * (step + 1))], bytes: [[0, ...counted]] };
}

/** Two minutes each way, of which the download is dented from one second to another. */
function soakSamples(dented: { readonly from: number; readonly to: number }): RunSamples {
  const random = seededRandom(4);
  const rate = (of: number) => of * (0.98 + 0.04 * random());
  const down = Array.from({ length: 120 }, (_, second) =>
    rate(second + 5 >= dented.from && second + 5 < dented.to ? 200 : 480),
  );
  const phases = [
    { phase: 'idle', fromMs: 0, toMs: 5000 },
    { phase: 'download', fromMs: 5000, toMs: 125_000 },
    { phase: 'settle', fromMs: 125_000, toMs: 128_000 },
    { phase: 'upload', fromMs: 128_000, toMs: 248_000 },
  ] as const;
  const upload = growing(
    128_000,
    Array.from({ length: 120 }, () => rate(95)),
  );
  return {
    ...simulateSamples(GOOD_LINE, random),
    profile: 'soak',
    phases,
    download: growing(5000, down),
    upload,
    peerClockOffsetMs: 0,
  };
}

describe('runs beside the lanes', () => {
  let console: TestConsole;
  let siteId: string;
  let code: string;
  beforeEach(async () => {
    console = await openTestConsole();
    ({ siteId, code } = await furnish(console));
  });
  afterEach(() => console.close());

  const granted = async (changes: Parameters<typeof orderFor>[1] = {}) => {
    const order = orderFor(code, changes);
    const run = await startRun(console.context, await visitorOf(console, order), order, 'http://192.0.2.20:4870');
    if (!run.ok) throw new Error(run.fault.code);
    return run.value;
  };
  const span = async (lengthMs: number) => {
    const untilMs = console.context.wallMs() + SECOND_MS;
    const seen = await watchedSpanOf(console.context, siteId, { fromMs: untilMs - lengthMs, untilMs });
    if (!seen.ok) throw new Error(seen.fault.code);
    return seen.value;
  };

  it('are told to whoever watches, second by second, and to nobody else', async () => {
    const run = await granted();
    const rates = { fromMs: 2000, downBps: [480e6, 481e6], upBps: [null, null] };
    const alive = () => noteRunAlive(console.context, run.runId, run.runKey, rates);
    // Nobody looks: whoever measures need not tell.
    expect(await alive()).toEqual({ running: true, watched: false, stop: false });
    const other = await saveOffice(console.context, null, 'Shop');
    if (!other.ok) throw new Error(other.fault.code);
    const [heard, elsewhere]: [HeardNow[], HeardNow[]] = [[], []];
    const stop = await watchBeats(console.context, siteId, (now) => heard.push(now));
    await watchBeats(console.context, other.value.id, (now) => elsewhere.push(now));
    expect(await alive()).toEqual({ running: true, watched: true, stop: false });
    const { startedAtMs } = (await console.context.store.runs.byId(run.runId))!;
    expect(heard).toEqual([
      { kind: 'rates', rates: { runId: run.runId, deviceId: run.deviceId, startedAtMs, ...rates } },
    ]);
    expect(elsewhere).toEqual([]);
    // A key that proves nothing tells nobody anything.
    expect(await noteRunAlive(console.context, run.runId, 'guess', rates)).toEqual({
      running: false,
      watched: false,
      stop: false,
    });
    expect(heard).toHaveLength(1);
    await stop();
    expect(await alive()).toMatchObject({ watched: false });
  });

  it('show a soak by the second on a device that keeps no lanes, and what is measured there now', async () => {
    const run = await granted({ profile: 'soak' });
    expect(await span(HOUR_MS)).toMatchObject({
      runs: [],
      machines: [{ deviceId: run.deviceId, name: 'Press desk', lanes: [], state: 'measures', isAgent: false }],
    });
    console.advanceMs(250_000);
    await handInRun(console.context, run.runId, run.runKey, handedIn(soakSamples({ from: 0, to: 0 }), run));
    const { runs, machines } = await span(HOUR_MS);
    expect(machines.map(({ name, state }) => [name, state])).toEqual([['Press desk', 'away']]);
    const { seconds } = runs[0]!;
    expect(seconds!.downBps).toHaveLength(248);
    expect(seconds!.downBps.slice(0, 5)).toEqual([null, null, null, null, null]);
    expect(seconds!.downBps[60]! / 480e6).toBeCloseTo(1, 1);
    expect(seconds!.upBps[60]).toBeNull();
    expect(seconds!.upBps[200]! / 95e6).toBeCloseTo(1, 1);
    // In a picture of days nothing would be seen of it.
    expect((await span(48 * HOUR_MS)).machines).toEqual([]);
  });

  it('leave a short run of a device that keeps no lanes to the board', async () => {
    const run = await granted();
    await handInRun(console.context, run.runId, run.runKey, finished(simulateSamples(GOOD_LINE, seededRandom(5))));
    expect(await span(HOUR_MS)).toMatchObject({ runs: [], machines: [] });
  });

  it('say of a mark what it did to the rate', async () => {
    const run = await granted({ profile: 'soak' });
    console.advanceMs(50_000);
    const mark = await beginMark(console.context, 'Ines', { siteId, label: 'glue press on' });
    if (!mark.ok) throw new Error('no mark');
    console.advanceMs(40_000);
    await endMark(console.context, mark.value.id);
    console.advanceMs(160_000);
    await handInRun(console.context, run.runId, run.runKey, handedIn(soakSamples({ from: 50, to: 90 }), run));
    const [shown] = (await span(HOUR_MS)).marks;
    expect(shown!.effects).toEqual([
      {
        ...{ laneName: 'Press desk, soak down', differs: true },
        sentence: expect.stringMatching(/^(?:199|20[01]) instead of 4[78]\d\sMb\/s \(58\s% to 5[89]\s% less\)$/),
      },
    ]);
  });
});
