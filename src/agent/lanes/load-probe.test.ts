import type { Lane, LaneEcho } from '@/core';
import type { LaneProbe } from './lane-probe';
import { openLoadCounters, type LoadCounters, type LoadReading } from './load-counters';
import { openLoadProbe } from './load-probe';

const LANE: Lane = { id: 'l', name: 'Line', kind: 'load-in', target: 'igd', role: 'line', everyMs: 10_000 };
const GIGABIT = 1000;

/** What a device says, reading by reading, 10 s apart; null: it does not answer. */
type Said = readonly (Partial<LoadReading> | null)[];

describe('a lane of a load', () => {
  const probes: LaneProbe[] = [];
  let [asked, closed] = [0, 0];
  beforeEach(() => {
    jest.useFakeTimers();
    [asked, closed] = [0, 0];
  });
  afterEach(() => {
    for (const probe of probes.splice(0)) probe.close();
    jest.useRealTimers();
  });

  const device = (said: Said) => (): LoadCounters => ({
    read: () => {
      const reading = said[asked++];
      if (reading === null || reading === undefined) return Promise.reject(new Error('silent'));
      const usual = { upMs: null, wide: true, speedMbps: GIGABIT, inBytes: 0, outBytes: 0 };
      return Promise.resolve({ ...usual, atMs: performance.now(), ...reading });
    },
    close: () => (closed += 1),
  });

  async function heard(said: Said, kinds: readonly Lane['kind'][] = ['load-in']) {
    const beganMs = Date.now();
    const open = device(said);
    const echoes = kinds.map((kind, place) => {
      const own: LaneEcho[] = [];
      const lane = { ...LANE, id: String(place), kind };
      probes.push(openLoadProbe(lane, (echo) => own.push({ ...echo, atMs: echo.atMs - beganMs }), Date.now, open));
      return own;
    });
    await jest.advanceTimersByTimeAsync(10_000 * said.length - 1);
    return echoes;
  }

  it('is the mean between two readings, for the moment of the first', async () => {
    const [down, up] = await heard(
      [
        { inBytes: 1e9, outBytes: 0 },
        { inBytes: 1.25e9, outBytes: 12.5e6 },
        { inBytes: 1.25e9, outBytes: 12.5e6 },
      ],
      ['load-in', 'load-out'],
    );
    expect(down).toEqual([
      { atMs: 0, ms: 200 },
      { atMs: 10_000, ms: 0 },
    ]);
    expect(up!.map(({ ms }) => ms)).toEqual([10, 0]);
    // Both ways with one question each time.
    expect(asked).toBe(3);
    for (const probe of probes.splice(0)) probe.close();
    expect(closed).toBe(1);
  });

  it('says nothing while the device does not answer, and the mean over all of it afterwards', async () => {
    const [down] = await heard([{ inBytes: 0 }, null, { inBytes: 250e6 }]);
    expect(down).toEqual([{ atMs: 0, ms: 100 }]);
  });

  it('says nothing of a stretch in which the device was started anew', async () => {
    const [down] = await heard([
      { inBytes: 5e9, upMs: 900_000 },
      { inBytes: 1e6, upMs: 3000 },
      { inBytes: 126e6, upMs: 13_000 },
    ]);
    expect(down).toEqual([{ atMs: 10_000, ms: 100 }]);
  });

  it('follows a counter of 32 bits once round, and says nothing where it may have gone round twice', async () => {
    const narrow = { wide: false } as const;
    const [slow] = await heard([
      { ...narrow, inBytes: 2 ** 32 - 125e6 },
      { ...narrow, inBytes: 125e6 },
    ]);
    expect(slow).toEqual([{ atMs: 0, ms: 200 }]);
    for (const probe of probes.splice(0)) probe.close();
    asked = 0;
    const fast = { ...narrow, speedMbps: 10_000 };
    const [unknown] = await heard([
      { ...fast, inBytes: 0 },
      { ...fast, inBytes: 125e6 },
    ]);
    expect(unknown).toEqual([]);
  });

  it('of which nothing can be read says nothing, and keeps nobody from the others', () => {
    expect(() => openLoadCounters('192.0.2.1/3', null)).toThrow('no login');
    const own: LaneEcho[] = [];
    const probe = openLoadProbe({ ...LANE, target: '192.0.2.1/3' }, (echo) => own.push(echo), Date.now);
    probe.close();
    expect(own).toEqual([]);
  });
});
