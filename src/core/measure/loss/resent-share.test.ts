import type { KernelSighting } from '../../domain/sightings';
import { resentShareOf } from './resent-share';

const sighting = (changes: Partial<KernelSighting>): KernelSighting => ({
  ...{ atMs: 1, port: 50_000, mssBytes: 1448, pathMtuBytes: 1500, rttMs: 14, minRttMs: 14, retransmitted: 0 },
  ...{ spurious: 0, bytesAcked: 0, busyMs: 1000, receiverLimitedMs: 0, congestionControl: 'cubic' },
  ...changes,
});
const SEGMENTS = 2000 * 1448;

describe('the share that was sent again', () => {
  it('is that of the last sighting of each connection, without what was needless', () => {
    const seen = [
      sighting({ bytesAcked: 1, retransmitted: 900 }),
      sighting({ atMs: 2, bytesAcked: SEGMENTS, retransmitted: 30, spurious: 10 }),
      sighting({ atMs: 2, port: 50_001, bytesAcked: SEGMENTS, retransmitted: 20 }),
    ];
    expect(resentShareOf(seen)).toBeCloseTo(40 / 4000, 9);
  });

  it('is unknown where the kernel did not say, or too little was sent to tell', () => {
    expect(resentShareOf([])).toBeNull();
    expect(resentShareOf([sighting({ bytesAcked: SEGMENTS, retransmitted: null })])).toBeNull();
    expect(resentShareOf([sighting({ bytesAcked: 100 * 1448, retransmitted: 50 })])).toBeNull();
  });
});
