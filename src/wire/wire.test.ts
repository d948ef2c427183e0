import { NO_SAMPLES } from '@/core';
import fc from 'fast-check';
import { failed, problemOf } from './fault/fault';
import { PEER_FAULTS } from './peer/peer-faults';
import { decodeEcho, encodeEcho, encodeProbe } from './peer/probe-frame';
import { runSamplesSchema } from './console/samples-schema';

describe('probe frames', () => {
  it('come back with their number and the peer clock', () => {
    fc.assert(
      fc.property(fc.nat(0xffffffff), fc.double({ min: 0, max: 1e12, noNaN: true }), (sequence, peerMs) => {
        const echo = encodeEcho(encodeProbe(sequence), peerMs)!;
        expect(decodeEcho(echo.buffer)).toEqual({ sequence, peerMs });
      }),
    );
  });

  it('are laid out big-endian: number, then clock', () => {
    expect([...encodeProbe(0x01020304)]).toEqual([1, 2, 3, 4]);
    expect([...encodeEcho(encodeProbe(1), 2)!]).toEqual([0, 0, 0, 1, 0x40, 0, 0, 0, 0, 0, 0, 0]);
  });

  it('of another length, or without a clock, are refused', () => {
    expect(encodeEcho(new Uint8Array(5), 0)).toBeNull();
    expect(decodeEcho(new ArrayBuffer(4))).toBeNull();
    expect(decodeEcho(encodeEcho(encodeProbe(1), NaN)!.buffer)).toBeNull();
  });
});

describe('problem details', () => {
  it('fill the facts into the sentence and keep the code and status', () => {
    const { fault } = failed('limit-bytes', { limit: 1000 } as const);
    expect(problemOf(PEER_FAULTS, fault)).toMatchObject({
      type: 'urn:bent-straw:limit-bytes',
      status: 413,
      code: 'limit-bytes',
      detail: expect.stringContaining('may move 1000 bytes'),
    });
  });

  it('have a next step in each sentence: at least two clauses', () => {
    for (const { sentence, status } of Object.values(PEER_FAULTS)) {
      expect(sentence).toMatch(/[.;] \S/);
      expect(status).toBeGreaterThanOrEqual(400);
    }
  });
});

describe('handed-in samples', () => {
  const good = {
    ...NO_SAMPLES,
    phases: [{ phase: 'idle', fromMs: 0, toMs: 2000 }],
    probes: { sentMs: [0, 50], rttMs: [14, null] },
    download: {
      atMs: [2000, 2050],
      bytes: [
        [0, 10],
        [0, 20],
      ],
    },
    upload: null,
    peerClockOffsetMs: -5,
  };

  it('are taken when they are whole', () => {
    expect(runSamplesSchema.safeParse(good).success).toBe(true);
  });

  it.each([
    ['a counter that falls', { ...good, download: { atMs: [0, 50], bytes: [[10, 5]] } }],
    ['a clock that falls', { ...good, download: { atMs: [50, 0], bytes: [[5, 10]] } }],
    ['streams of another length', { ...good, download: { atMs: [0, 50], bytes: [[5]] } }],
    ['a negative round trip', { ...good, probes: { sentMs: [0], rttMs: [-1] } }],
    ['a phase that ends before it begins', { ...good, phases: [{ phase: 'idle', fromMs: 5, toMs: 1 }] }],
    ['a profile that there is not', { ...good, profile: 'endless' }],
    [
      'a share of the processor over 1',
      { ...good, peerLoad: [{ atMs: 1, otherSessions: 0, cpuShare: 7, loopLateMs: 0 }] },
    ],
    [
      'a packet without its answer',
      { ...good, udp: { kind: 'stamp', sentMs: [0], rttMs: [], reflected: [], duplicates: 0, peerReceived: 0 } },
    ],
    ['a figure of its own', { ...good, downBps: 1e9 }],
    ['too many points', { ...good, probes: { sentMs: Array(80_001).fill(0), rttMs: Array(80_001).fill(1) } }],
  ])('are refused with %s', (_, samples) => {
    expect(runSamplesSchema.safeParse(samples).success).toBe(false);
  });
});
