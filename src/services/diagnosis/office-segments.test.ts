import type { Link, Plan } from '@/core';
import { NEW_DEVICE, NEW_PEER, type EvidenceRun, type StoredSwap } from '@/store';
import { linkSegmentId, OfficeSegments, type OfficeFacts } from './office-segments';

const CABLE: Link = { medium: 'wired', negotiatedBps: 1e9, mtuBytes: 1500 };
const AIR: Link = { medium: 'wifi', band: '2.4', linkRateBps: null, accessPoint: 'ceiling' };
const PLAN: Plan = {
  ...{ name: 'Tarnfell Fibre 500/100', downBps: 500e6, upBps: 100e6, basis: 'payload', fullFrom: 0.9 },
  ...{ leastDownBps: null, leastUpBps: null },
};

function facts(swaps: readonly Partial<StoredSwap>[] = []): OfficeFacts {
  const peer = (id: string, reach: 'local' | 'internet' | 'tunnel') => ({
    ...{ ...NEW_PEER, id, siteId: 's', name: `peer ${id}`, reach, address: '/', practice: false },
  });
  return {
    devices: ['a', 'b'].map((id) => ({
      ...NEW_DEVICE,
      id,
      siteId: 's',
      spotId: null,
      name: `device ${id}`,
      link: CABLE,
    })),
    peers: [peer('in', 'local'), peer('out', 'internet'), peer('far', 'tunnel')],
    swaps: swaps as StoredSwap[],
    lines: [],
    plan: PLAN,
    tunnelPlans: new Map([['far', { ...PLAN, downBps: 20e6, upBps: 100e6, slowerEnd: 'both' }]]),
    peerPorts: new Map([['in', 1e9]]),
  };
}
const run = (changes: Partial<EvidenceRun> = {}) => ({
  ...{ deviceId: 'a', link: CABLE, startedAtMs: 1000, ipVersion: 4 as const, reach: 'local' as const },
  ...{ lineId: null, peerId: 'in' },
  ...changes,
});

describe('the path of a run', () => {
  it('ends at the inside peer inside the office, and crosses router, line and what is beyond outside', () => {
    const segments = new OfficeSegments(facts());
    const inside = segments.pathOf(run());
    const outside = segments.pathOf(run({ reach: 'internet', peerId: 'out', lineId: 'l' }));
    expect(inside).toEqual(['device:a', 'cable:a@1000', 'hop', 'peer:local:in']);
    expect(outside).toEqual([
      ...['device:a', 'cable:a@1000', 'hop', 'router', 'line:l', 'far:out', 'peer:internet:out'],
    ]);
  });

  it('goes through the tunnel to the line at the other end, held against the slower of both', () => {
    const segments = new OfficeSegments(facts());
    expect(segments.pathOf(run({ reach: 'tunnel', peerId: 'far', lineId: 'l' }))).toEqual([
      ...['device:a', 'cable:a@1000', 'hop', 'router', 'line:l', 'tunnel:far', 'far-line:far', 'peer:tunnel:far'],
    ]);
    expect(segments.all.find(({ id }) => id === 'tunnel:far')!.sound.down).toEqual({ lowBps: 16e6, highBps: 20e6 });
  });

  it('is held by the far port only where that is slower than the cables of the office', () => {
    const soundAt = (portBps: number) => {
      const segments = new OfficeSegments({ ...facts(), peerPorts: new Map([['in', portBps]]) });
      segments.pathOf(run());
      return segments.all.find(({ kind }) => kind === 'peer')!.sound.down;
    };
    expect(soundAt(1e9)).toBeNull();
    // IPv4 with timestamps in frames of 1500 bytes: 1448 of 1538 bytes on the wire.
    expect(soundAt(100e6)!.highBps / 1e6).toBeCloseTo((100 * 1448) / 1538, 1);
  });

  it('shares the air of one access point and band between devices, and nothing else of theirs', () => {
    const segments = new OfficeSegments(facts());
    const [a, b] = [segments.pathOf(run({ link: AIR })), segments.pathOf(run({ deviceId: 'b', link: AIR }))];
    expect(a[1]).toBe('air:ceiling|2.4');
    expect(a.filter((id) => b.includes(id))).toEqual(['air:ceiling|2.4', 'hop', 'peer:local:in']);
    expect(linkSegmentId('a', { ...AIR, accessPoint: undefined })).toBe('air:a|2.4');
  });

  it('has another cable once its port came up at another rate, or a swap was written down', () => {
    const swaps = [{ segmentId: 'cable:a', atMs: 5000 }];
    const segments = new OfficeSegments(facts(swaps));
    const at = (startedAtMs: number, link: Link = CABLE) => segments.pathOf(run({ startedAtMs, link }))[1];
    expect([at(1000), at(6000), at(6000, { ...CABLE, negotiatedBps: 100e6 })]).toEqual([
      ...['cable:a@1000', 'cable:a@1000~1', 'cable:a@100~1'],
    ]);
    expect(segments.pathOf(run({ deviceId: 'b', startedAtMs: 6000 }))[1]).toBe('cable:b@1000');
  });

  it('knows what each part carries while it is sound, and nothing of what nobody described', () => {
    const segments = new OfficeSegments(facts());
    segments.pathOf(run({ reach: 'internet', peerId: 'out', lineId: 'l' }));
    segments.pathOf(run({ deviceId: 'b', link: { medium: 'unknown' } }));
    const sound = (id: string) => segments.all.find((each) => each.id === id)!.sound.down;
    expect(sound('line:l')).toEqual({ lowBps: 450e6, highBps: 515e6 });
    expect(sound('cable:a@1000')!.highBps / 1e6).toBeCloseTo(941.5, 0);
    expect(sound('link:b')).toBeNull();
    expect(sound('router')).toBeNull();
  });
});
