import type { CounterSeries, RateEstimate, RunReport } from '@/core';
import type { StoredRun } from '@/store';
import { furnish, openTestConsole, type TestConsole } from '../console/console-for-tests';
import { leastDirectionMs, LONG_LOOK_MS, noteLook, type LookedAt } from './long-look';

const DAY_MS = 24 * 3600_000;
const NOW_MS = 100 * DAY_MS;
const ORDINARY: LookedAt = { profile: 'standard', reach: 'internet', alone: true, again: true };
const UNKNOWN = { longLookAtMs: null, burstMs: null };
const EVEN = { longLookAtMs: NOW_MS - 10 * DAY_MS, burstMs: null };

describe('how long a run over a line must last', () => {
  it('is long once a month, when the device has just measured it already', () => {
    expect(leastDirectionMs(ORDINARY, UNKNOWN, NOW_MS)).toBe(LONG_LOOK_MS);
    expect(leastDirectionMs({ ...ORDINARY, again: false }, UNKNOWN, NOW_MS)).toBe(0);
    expect(leastDirectionMs(ORDINARY, EVEN, NOW_MS)).toBe(0);
    expect(leastDirectionMs(ORDINARY, EVEN, NOW_MS + 21 * DAY_MS)).toBe(LONG_LOOK_MS);
  });

  it('is the usual time for every run that says nothing about the line alone', () => {
    const others: Partial<LookedAt>[] = [
      { profile: 'quick' },
      { profile: 'thorough' },
      { reach: 'local' },
      { reach: 'tunnel' },
      { alone: false },
    ];
    for (const other of others) expect(leastDirectionMs({ ...ORDINARY, ...other }, UNKNOWN, NOW_MS)).toBe(0);
    expect(leastDirectionMs(ORDINARY, null, NOW_MS)).toBe(0);
  });

  it('reaches beyond a burst that was found, from the first run on, and never lasts for ever', () => {
    const bursting = { ...EVEN, burstMs: 7000 };
    expect(leastDirectionMs(ORDINARY, bursting, NOW_MS)).toBe(12_000);
    expect(leastDirectionMs({ ...ORDINARY, again: false }, bursting, NOW_MS)).toBe(12_000);
    expect(leastDirectionMs(ORDINARY, { ...bursting, burstMs: 300_000 }, NOW_MS)).toBe(30_000);
  });
});

describe('what a finished run shows of its line', () => {
  let console: TestConsole;
  let run: StoredRun;
  beforeEach(async () => {
    console = await openTestConsole();
    const { siteId } = await furnish(console);
    const [line] = await console.context.store.sites.linesOf(siteId);
    run = { lineId: line!.id, reach: 'internet', practice: false, together: null, startedAtMs: NOW_MS } as StoredRun;
  });
  afterEach(() => console.close());

  const series = (ms: number): CounterSeries => ({ atMs: [1000, 1000 + ms], bytes: [[0, 1e6]] });
  const rate = (...earlier: { bps: number; fromMs: number; toMs: number }[]) =>
    ({ steadyBps: 60e6, earlier }) as unknown as RateEstimate;
  const note = async (ms: number, down: RateEstimate, changes: Partial<StoredRun> = {}) => {
    const report = { down: { rate: down }, up: { rate: rate() } } as unknown as RunReport;
    await noteLook(console.context, { ...run, ...changes }, report, { download: series(ms), upload: series(ms) });
    const { longLookAtMs, burstMs } = (await console.context.store.sites.line(run.lineId!))!;
    return { longLookAtMs, burstMs };
  };

  it('is nothing after an ordinary run of an even line', async () => {
    expect(await note(8000, rate())).toEqual(UNKNOWN);
  });

  it('is the length of a burst, whether the look was long or not, until a long one finds none', async () => {
    const burst = { bps: 200e6, fromMs: 2000, toMs: 6000 };
    expect(await note(9000, rate(burst))).toEqual({ longLookAtMs: null, burstMs: 5000 });
    expect(await note(20_000, rate(burst))).toEqual({ longLookAtMs: NOW_MS, burstMs: 5000 });
    expect(await note(9000, rate())).toEqual({ longLookAtMs: NOW_MS, burstMs: 5000 });
    expect(await note(20_000, rate())).toEqual({ longLookAtMs: NOW_MS, burstMs: null });
  });

  it('is no burst where it only became faster, nor of a practice line or a share', async () => {
    expect(await note(9000, rate({ bps: 20e6, fromMs: 2000, toMs: 6000 }))).toEqual(UNKNOWN);
    const burst = { bps: 200e6, fromMs: 2000, toMs: 6000 };
    expect(await note(20_000, rate(burst), { practice: true })).toEqual(UNKNOWN);
    expect(await note(20_000, rate(burst), { together: 'round' })).toEqual(UNKNOWN);
    expect(await note(20_000, rate(burst), { reach: 'local' })).toEqual(UNKNOWN);
  });
});
