import type { DiagnosedSegment, Diagnosis, Finding, FindingFacts, SegmentState } from '@/core';
import { knownParts, partOf } from './proven-straw';

const segment = (id: string, kind: DiagnosedSegment['kind']): DiagnosedSegment => ({
  ...{ id, kind, name: null, deviceId: null, band: null, accessPoint: null, generation: 0, hours: null },
  sound: { down: null, up: null },
});
const state = (id: string, kind: DiagnosedSegment['kind'], downBps: number | null): SegmentState => ({
  segment: segment(id, kind),
  proven: { down: downBps === null ? null : { bps: downBps, runId: 'r', atMs: 1 }, up: null },
  ...{ suspicion: { down: 0, up: 0 }, deviceIds: [] },
});
const finding = (facts: FindingFacts, id: string, kind: DiagnosedSegment['kind'], changes: Partial<Finding> = {}) => ({
  ...{ key: `${facts.code} ${id}`, facts, strength: 'found' as const, segments: [segment(id, kind)], sinceMs: 1 },
  ...{ hours: null, deviceIds: [], evidence: { for: [], against: [] }, weight: 1 },
  ...changes,
});
const DEEP: FindingFacts = {
  code: 'queue-too-deep',
  where: 'line',
  direction: 'up',
  addedMs: 227.4,
  rating: 'collapsed',
};
const diagnosis = (segments: SegmentState[], findings: Finding[] = []): Diagnosis => ({
  segments,
  findings,
  occasions: 1,
});

describe('the straw of an office', () => {
  it('is as wide as the best that any of its segments was proven to carry, and unknown where nothing was', () => {
    const parts = knownParts(
      diagnosis([state('cable:a', 'cable', 93e6), state('air:b|5', 'air', 414e6), state('device:a', 'device', null)]),
      new Set(),
    );
    expect(parts.get('link')).toEqual({ downBps: 414e6, upBps: null, kinkWords: null });
    expect(parts.get('device')!.downBps).toBeNull();
    expect(parts.get('line')).toEqual({ downBps: null, upBps: null, kinkWords: null });
  });

  it('bends where something was found, with its figure, and not where it was let be or is a hint', () => {
    const kink = (found: Finding, letBe: string[] = []) =>
      knownParts(diagnosis([], [found]), new Set(letBe)).get('line')!.kinkWords;
    const deep = finding(DEEP, 'line:l', 'line');
    expect(kink(deep)).toBe('+227 ms up');
    expect(kink(deep, [deep.key])).toBeNull();
    expect(kink({ ...deep, strength: 'hint' })).toBeNull();
    expect(kink(finding(DEEP, 'router', 'router'))).toBeNull();
  });

  it('does not bend for what a swap did, nor for a far end inside or through a tunnel', () => {
    const helped: FindingFacts = {
      ...{ code: 'swap-told', what: 'router-replaced', direction: 'down', beforeBps: 38e6, afterBps: 93e6 },
      ...{ deviceName: 'desk', runsBefore: 4, runsAfter: 4 },
    };
    const parts = knownParts(diagnosis([], [finding(helped, 'router', 'router')]), new Set());
    expect(parts.get('router')!.kinkWords).toBeNull();
    expect(partOf({ kind: 'peer', id: 'peer:internet:p' })).toBe('far-end');
    expect(partOf({ kind: 'peer', id: 'peer:local:p' })).toBeNull();
    expect(partOf({ kind: 'far-network', id: 'far:tunnel' })).toBeNull();
  });
});
