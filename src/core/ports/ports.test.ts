import fc from 'fast-check';
import { lookSentence } from '../words/look-words';
import { counterBps, counterStep } from './counter-step';
import type { Port, PortReading, PortsFound } from './port';
import { portFindings, portRates } from './port-findings';

const reading = (atMs: number, change: Partial<PortReading> = {}): PortReading => ({
  ...{ atMs, upMs: 1e9 + atMs, wide: true, ports: [] },
  ...change,
});
const WRAP = 2 ** 32;

describe('what a counter grew by', () => {
  const step = (
    before: number | null,
    after: number | null,
    change: [Partial<PortReading>, Partial<PortReading>] = [{}, {}],
    mbps: number | null = 100,
  ) => counterStep(before, after, [reading(0, change[0]), reading(10_000, change[1])], mbps);

  it('is the difference', () => expect(step(100, 350)).toEqual({ kind: 'grew', by: 250 }));
  it('is not known where the device says none', () => expect(step(null, 5)).toEqual({ kind: 'none' }));
  it('is not known when the device was started anew meanwhile', () => {
    expect(step(5_000, 100, [{ upMs: 9e8 }, { upMs: 4000 }])).toEqual({ kind: 'reset' });
    // Also where the new count has already overtaken the old one.
    expect(step(100, 5_000, [{ upMs: 9e8 }, { upMs: 4000 }])).toEqual({ kind: 'reset' });
  });
  it('of 64 bits that went back without a start is a reset, never a wrap', () =>
    expect(step(500, 100)).toEqual({ kind: 'reset' }));
  it('of 32 bits comes round once where the port is slow enough', () => {
    const narrow = [{ wide: false }, { wide: false }] as [Partial<PortReading>, Partial<PortReading>];
    expect(step(WRAP - 100, 50, narrow)).toEqual({ kind: 'grew', by: 150 });
    // At a gigabit it comes round in 34 s: over a minute it may have done so twice.
    const minute = [reading(0, { wide: false }), reading(60_000, { wide: false })] as const;
    expect(counterStep(WRAP - 100, 50, minute, 1000)).toEqual({ kind: 'may-have-wrapped' });
    expect(counterStep(100, 50_000, minute, 1000)).toEqual({ kind: 'may-have-wrapped' });
    expect(counterBps(100, 50_000, minute, 1000)).toBeNull();
  });

  it('gives a rate that is right for whatever moved, also over the edge of 32 bits', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: WRAP - 1 }),
        fc.integer({ min: 0, max: 100 * 125 * 10_000 }),
        (start, moved) => {
          const readings = [reading(0, { wide: false }), reading(10_000, { wide: false })] as const;
          expect(counterBps(start, (start + moved) % WRAP, readings, 100)).toBeCloseTo((8 * moved) / 10, 6);
        },
      ),
    );
  });
});

const port = (index: number, change: Partial<Port> = {}): Port => ({
  ...{ index, name: `port ${index}`, label: null, up: true, speedMbps: 1000, duplex: 'full', inBytes: 0, outBytes: 0 },
  ...{ inErrors: 0, outErrors: 0, checksumErrors: 0, discards: 0, behind: [] },
  ...change,
});
const found = (before: readonly Port[], after: readonly Port[]): PortsFound => ({
  ...{ what: 'ports', target: '192.0.2.2', system: 'switch' },
  ...{ before: reading(0, { ports: before }), after: reading(10_000, { ports: after }) },
});
const same = (...ports: readonly Port[]) => found(ports, ports);
const kinds = (of: PortsFound) => portFindings(of).map(({ kind, port: { index } }) => [kind, index]);

describe('what is wrong with a port', () => {
  it('nothing, where nothing is', () => expect(kinds(same(port(1), port(2), port(3)))).toEqual([]));

  it('100 between gigabits, and no port in an office of 100s; one that is not up says nothing', () => {
    expect(kinds(same(port(1), port(2), port(3, { speedMbps: 100 })))).toEqual([['slow', 3]]);
    expect(kinds(same(port(1), port(2, { speedMbps: 100 }), port(3, { speedMbps: 100 })))).toEqual([]);
    expect(kinds(same(port(1), port(2), port(3, { speedMbps: 100, up: false })))).toEqual([]);
  });

  it('half duplex', () => expect(kinds(same(port(1, { duplex: 'half' }), port(2)))).toEqual([['half-duplex', 1]]));

  it('damaged frames that grow, not those of long ago', () => {
    expect(kinds(same(port(1, { inErrors: 9000 }), port(2)))).toEqual([]);
    expect(kinds(found([port(1, { inErrors: 9000 }), port(2)], [port(1, { inErrors: 9037 }), port(2)]))).toEqual([
      ['errors', 1],
    ]);
  });

  it('a port that is full', () => {
    const full = found(
      [port(1, { speedMbps: 100, outBytes: 0 })],
      [port(1, { speedMbps: 100, outBytes: 118_750_000 })],
    );
    expect(kinds(full)).toEqual([['full', 1]]);
    expect(portRates(full)[0]).toMatchObject({ inBps: 0, outBps: 95e6 });
  });

  it('a port that is new at the second reading has no rate, and nothing is made up', () => {
    expect(portRates(found([], [port(1, { inBytes: 1e9 })]))[0]).toMatchObject({
      inBps: null,
      outBps: null,
      newErrors: null,
    });
  });

  it('is told in sentences', () => {
    const before = [port(1), port(2), port(3, { speedMbps: 100, inErrors: 5 })];
    const after = [
      port(1, { inBytes: 30_125_000, outBytes: 1_250_000 }),
      port(2),
      port(3, { speedMbps: 100, inErrors: 42 }),
    ];
    expect(lookSentence(found(before, after), null)).toBe(
      'switch: 3 of 3 ports are up. port 1 moved most in 10 s: 24.1 Mb/s in and 1.00 Mb/s out. port 3 is at 100 Mb/s, the others at 1000: another cable or plug, or an old device. port 3 damaged 37 frames meanwhile: its cable, or a plug.',
    );
  });
});
