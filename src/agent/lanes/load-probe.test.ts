import type { Lane, LaneEcho } from '@/core';
import type { LaneProbe } from '@/session/lanes';
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
    close();
    jest.useRealTimers();
  });
  const close = () => {
    for (const probe of probes.splice(0)) probe.close();
  };

  /** What a device says each time that it is asked; null: it does not answer. */
  const device = (says: (time: number) => Partial<LoadReading> | null) => (): LoadCounters => ({
    read: () => {
      const reading = says(asked++);
      if (reading === null) return Promise.reject(new Error('silent'));
      const usual = { upMs: null, wide: true, speedMbps: GIGABIT, inBytes: 0, outBytes: 0 };
      return Promise.resolve({ ...usual, atMs: performance.now(), ...reading });
    },
    close: () => (closed += 1),
  });
  /** Readings one after the other, without waiting for any to move: as every three seconds it is asked once each time. */
  const inTurn = (said: Said) => device((time) => said[time] ?? null);
  const EVERY_MS = 3000;

  async function heard(
    open: () => LoadCounters,
    lastsMs: number,
    lane: Partial<Lane> = {},
    kinds: readonly Lane['kind'][] = ['load-in'],
  ) {
    const beganMs = Date.now();
    const echoes = kinds.map((kind, place) => {
      const own: LaneEcho[] = [];
      const onEcho = (echo: LaneEcho) => own.push({ ...echo, atMs: echo.atMs - beganMs });
      probes.push(
        openLoadProbe({ ...LANE, everyMs: EVERY_MS, id: String(place), kind, ...lane }, onEcho, Date.now, open),
      );
      return own;
    });
    await jest.advanceTimersByTimeAsync(lastsMs);
    return echoes;
  }

  it('is the mean between two readings, for the moment of the first; both ways of a port with one question', async () => {
    const said = [{ inBytes: 1e9 }, { inBytes: 1.075e9, outBytes: 3.75e6 }, { inBytes: 1.075e9, outBytes: 3.75e6 }];
    const [down, up] = await heard(inTurn(said), 2 * EVERY_MS + 1, {}, ['load-in', 'load-out']);
    expect(down).toEqual([
      { atMs: 0, ms: 200 },
      { atMs: EVERY_MS, ms: 0 },
    ]);
    expect(up!.map(({ ms }) => ms)).toEqual([10, 0]);
    expect(asked).toBe(3);
    close();
    expect(closed).toBe(1);
  });

  it('says nothing while the device does not answer, and the mean over all of it afterwards', async () => {
    const [down] = await heard(inTurn([{ inBytes: 0 }, null, { inBytes: 75e6 }]), 2 * EVERY_MS + 1);
    expect(down).toEqual([{ atMs: 0, ms: 100 }]);
  });

  it('says nothing of a stretch in which the device was started anew', async () => {
    const said = [
      { inBytes: 5e9, upMs: 900_000 },
      { inBytes: 1e6, upMs: 1000 },
      { inBytes: 38.5e6, upMs: 4000 },
    ];
    const [down] = await heard(inTurn(said), 2 * EVERY_MS + 1);
    expect(down).toEqual([{ atMs: EVERY_MS, ms: 100 }]);
  });

  it('follows a counter of 32 bits once round, and says nothing where it may have gone round twice', async () => {
    const narrow = { wide: false } as const;
    const [slow] = await heard(
      inTurn([
        { ...narrow, inBytes: 2 ** 32 - 37.5e6 },
        { ...narrow, inBytes: 37.5e6 },
      ]),
      EVERY_MS + 1,
    );
    expect(slow).toEqual([{ atMs: 0, ms: 200 }]);
    close();
    asked = 0;
    const fast = { ...narrow, speedMbps: 40_000 };
    const [unknown] = await heard(
      inTurn([
        { ...fast, inBytes: 0 },
        { ...fast, inBytes: 125e6 },
      ]),
      EVERY_MS + 1,
    );
    expect(unknown).toEqual([]);
  });

  /** A steady 80 Mb/s over a port whose device brings its counters up to date from time to time. */
  const steady = (refreshMs: number, phaseMs: number) => {
    const beganMs = performance.now();
    return device(() => {
      const sinceMs = performance.now() - beganMs + phaseMs;
      return { inBytes: 1e4 * (refreshMs === 0 ? sinceMs : Math.floor(sinceMs / refreshMs) * refreshMs) };
    });
  };

  it.each([0, 400, 1700, 2900])(
    'is right of a device that brings its counters up to date every 3 s (phase %d ms)',
    async (phaseMs) => {
      const [down] = await heard(steady(3000, phaseMs), 10 * 60_000, { everyMs: 15_000 });
      const loads = down!.map(({ ms }) => ms!);
      expect(loads.length).toBeGreaterThan(30);
      // Read without waiting for them to move, each would be off by up to a fifth.
      for (const mbps of loads) expect(Math.abs(mbps / 80 - 1)).toBeLessThan(0.06);
      expect(Math.abs(loads.reduce((sum, mbps) => sum + mbps, 0) / loads.length / 80 - 1)).toBeLessThan(0.01);
      // Twenty questions a minute, at most.
      expect(asked).toBeLessThanOrEqual(20 * 10);
    },
  );

  it('asks a device that counts as it goes once each time, and one over which nothing goes as well', async () => {
    const [down] = await heard(steady(0, 0), 10 * 60_000, { everyMs: 15_000 });
    expect(Math.abs(down!.at(-1)!.ms! / 80 - 1)).toBeLessThan(0.001);
    expect(asked).toBeLessThan(1.2 * 41);
    close();
    asked = 0;
    const [idle] = await heard(inTurn(Array.from({ length: 60 }, () => ({ inBytes: 7 }))), 10 * 60_000, {
      everyMs: 15_000,
    });
    expect(idle!.every(({ ms }) => ms === 0)).toBe(true);
    expect(asked).toBeLessThan(1.2 * 41);
  });

  it('of which nothing can be read says nothing, and keeps nobody from the others', () => {
    expect(() => openLoadCounters('192.0.2.1', null)).toThrow('no port');
    const own: LaneEcho[] = [];
    const probe = openLoadProbe({ ...LANE, target: '192.0.2.1' }, (echo) => own.push(echo), Date.now);
    probe.close();
    expect(own).toEqual([]);
  });
});
