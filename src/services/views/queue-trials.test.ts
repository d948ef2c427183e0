import type { Occasion, OccasionRate } from '@/core';
import type { StoredHunt, StoredHuntStep } from '@/store';
import { huntedQueue } from './queue-trials';

const MINUTE_MS = 60_000;
const HUNT: StoredHunt = {
  ...{ id: 'h', siteId: 's', kind: 'queue', title: 'the queue', focus: {}, state: 'open' },
  ...{ openedAtMs: 100 * MINUTE_MS, openedBy: 'Ines', closedAtMs: null, outcome: null },
};
let ids = 0;
const rate = (mbps: number): OccasionRate => ({
  ...{ medianBps: mbps * 1e6, provenBps: mbps * 1e6, provenBy: 'r', spread: 0.01 },
});
/** Runs of one set through the line, at a minute. */
function through(
  deviceId: string,
  upMbps: number,
  minute: number,
  of: Partial<Occasion> & { runs?: number } = {},
): Occasion {
  const { runs = 3, ...rest } = of;
  return {
    ...{ deviceId, reach: 'internet', startedAtMs: minute * MINUTE_MS, hour: 10, resentShare: null, flags: [] },
    runIds: Array.from({ length: runs }, () => `run-${(ids += 1)}`),
    path: [`device:${deviceId}`, `cable:${deviceId}@1000`, 'hop', 'router', 'line:l', 'far:p', 'peer:internet:p'],
    ...{ down: rate(480), up: rate(upMbps), addedDownMs: 9, addedUpMs: 220 },
    ...rest,
  };
}
const set = (minute: number, mbps: number): StoredHuntStep => ({
  ...{ id: `step-${minute}`, huntId: 'h', atMs: minute * MINUTE_MS, byName: 'Ines', kind: 'queue-set' },
  facts: { bps: mbps * 1e6 },
});
const advised = (occasions: readonly Occasion[], steps: readonly StoredHuntStep[] = []) =>
  huntedQueue(HUNT, steps, occasions, 'up');
const firstMbps = (occasions: readonly Occasion[]) => {
  const advice = advised(occasions);
  return advice?.status === 'set' ? advice.bps / 1e6 : null;
};
/** Nine tenths of what a router counts: 1500 bytes of packet for 1448 of payload. */
const ninth = (mbps: number) => 0.9 * ((mbps * 1500) / 1448);

describe('the trials of a queue', () => {
  it('begin below what the line gives to the device that it gives most', () => {
    expect(firstMbps([through('press', 97, 1), through('press', 96, 2)])).toBeCloseTo(ninth(96), 6);
    // A workstation behind a cable of 100 Mb/s speaks for its cable.
    const capped = [through('scan', 92.9, 3), through('scan', 92.8, 4)];
    expect(firstMbps([through('press', 97, 1), ...capped])).toBeCloseTo(ninth(97), 6);
  });

  it('leave out the air, runs inside, and runs without a figure', () => {
    const air = through('tablet', 120, 3, { path: ['device:tablet', 'air:ceiling|5', 'hop', 'router', 'line:l'] });
    const inside = through('press', 938, 4, { reach: 'local' });
    const torn = through('press', 120, 5, { up: null });
    expect(firstMbps([through('press', 97, 1), air, inside, torn])).toBeCloseTo(ninth(97), 6);
    expect(advised([air, inside, torn])).toBeNull();
    expect(advised([])).toBeNull();
  });

  it('go by the last six sets: what the line gave last month is another line', () => {
    const old = through('press', 60, 0);
    const fresh = [1, 2, 3, 4, 5, 6].map((minute) => through('press', 97, minute));
    expect(firstMbps([old, ...fresh])).toBeCloseTo(ninth(97), 6);
  });

  it('count each run to the setting that stood when it began', () => {
    const before = through('press', 97, 1);
    const steps = [set(101, 90), set(105, 95)];
    // One run of the second setting so far: two are wanted.
    const first = through('press', 87, 102, { addedUpMs: 6 });
    const second = through('press', 92, 106, { addedUpMs: 7, runs: 1 });
    expect(advised([before, first, second], steps)).toMatchObject({ status: 'measure', bps: 95e6, wanted: 2 });
    const done = through('press', 92, 106, { addedUpMs: 7 });
    expect(advised([before, first, done], steps)).toMatchObject({ status: 'set', step: 3 });
  });

  it('of a managed queue are not what the line gives without', () => {
    const steps = [set(101, 90)];
    const managed = through('press', 60, 102, { addedUpMs: 6 });
    const advice = advised([through('press', 97, 1), managed], steps);
    expect(advice).toMatchObject({ status: 'set', step: 2 });
    if (advice?.status === 'set') expect(advice.bps).toBeGreaterThan(90e6);
  });

  it('count a direction for itself', () => {
    const down = huntedQueue(HUNT, [], [through('press', 97, 1)], 'down');
    expect(down?.status === 'set' ? down.bps / 1e6 : null).toBeCloseTo(ninth(480), 6);
  });

  it('wait for runs whose delay was measured', () => {
    const blind = through('press', 87, 102, { addedUpMs: null });
    expect(advised([through('press', 97, 1), blind], [set(101, 90)])).toMatchObject({ status: 'measure', wanted: 3 });
  });
});
