import type { Plan } from '../domain/plan';
import { ceilingOfLink } from '../ceiling/link-ceiling';
import type { DiagnosisInput } from './diagnosis-input';
import { factFindings } from './fact-findings';
import type { Occasion } from './observation';
import { occasionOf, onCable, segmentFor, SHARED } from './office-for-tests';
import { NOTHING_SAID } from './said';

const PLAN: Plan = {
  ...{ name: 'Tarnfell Fibre 500/100', downBps: 500e6, upBps: 100e6, basis: 'payload', fullFrom: 0.9 },
  ...{ leastDownBps: null, leastUpBps: null },
};
const DAY_MS = 24 * 3600_000;
const cableAt = (bps: number | null) => ({
  cableBps: bps,
  cable: bps === null ? null : ceilingOfLink({ medium: 'wired', negotiatedBps: bps, mtuBytes: 1500 }, 4),
});
const device = (id: string, bps: number | null = 1e9) => ({ id, name: id, ...cableAt(bps) });
function office(occasions: readonly Occasion[], changes: Partial<DiagnosisInput> = {}): DiagnosisInput {
  return {
    segments: [...onCable('press'), ...onCable('bench'), ...onCable('scan'), ...SHARED],
    ...{ occasions, plan: PLAN, tunnelPlans: new Map(), outsidePeerBps: null, freshFromMs: 0, swaps: [] },
    ...{ generations: new Map(), said: NOTHING_SAID, devices: ['press', 'bench', 'scan'].map((id) => device(id)) },
    ...changes,
  };
}
const codesOf = (input: DiagnosisInput) => factFindings(input).map(({ facts }) => facts.code);

describe('a cable that came up slower than others', () => {
  const slow = (scanBps: number | null, others: number) =>
    codesOf(
      office([], { devices: [device('scan', scanBps), ...['a', 'b', 'c'].slice(0, others).map((id) => device(id))] }),
    );

  it('is read off from the set-up alone, beside others that came up faster', () => {
    expect(slow(100e6, 2)).toContain('cable-came-up-slow');
  });

  it('is nothing where all came up alike, or nobody read it', () => {
    expect(slow(1e9, 2)).toEqual([]);
    expect(slow(null, 3)).toEqual([]);
    expect(codesOf(office([], { devices: [device('scan', 100e6), device('press', 100e6)] }))).toEqual([]);
  });

  it('shows what was measured over it, and unknown where nothing was', () => {
    const devices = [device('scan', 100e6), device('press'), device('bench')];
    const [before] = factFindings(office([], { devices }));
    expect(before!.facts).toMatchObject({ measuredBps: null, othersBps: 1e9, othersCount: 2 });
    const [after] = factFindings(office([occasionOf('scan', 'local', { down: 93 })], { devices }));
    expect(after!.facts).toMatchObject({ measuredBps: 93e6 });
  });
});

describe('packets that are lost on the way', () => {
  const lossy = (of: Parameters<typeof occasionOf>[2] = {}, id = 'scan') =>
    [1, 2, 3].map((atMs) => occasionOf(id, 'local', { down: 320, resentShare: 0.02, atMs, ...of }));
  const fine = (id: string) => occasionOf(id, 'local', { down: 939, resentShare: 0.0001 });

  it('are found where they slow a cable down, and named by what others do not cross', () => {
    const [finding] = factFindings(office([fine('press'), ...lossy()]));
    expect(finding!.facts).toMatchObject({ code: 'packets-lost', resentShare: 0.02, runs: 3 });
    expect(finding!.segments.map(({ id }) => id)).toEqual(['cable:scan']);
    expect(finding!.deviceIds).toEqual(['scan']);
  });

  it('are the way that all share where all lose', () => {
    const [finding] = factFindings(office([...lossy(), ...lossy({}, 'press')]));
    expect(finding!.segments.map(({ id }) => id)).toEqual(['hop', 'peer:local:in']);
    expect([...finding!.deviceIds].sort()).toEqual(['press', 'scan']);
  });

  it('are none where the rate is whole, a queue was full, nobody counted, or it was seen once', () => {
    expect(codesOf(office(lossy({ down: 938 })))).not.toContain('packets-lost');
    expect(codesOf(office(lossy({ addedDown: 20 })))).not.toContain('packets-lost');
    expect(codesOf(office([1, 2, 3].map((atMs) => occasionOf('scan', 'local', { down: 320, atMs }))))).toEqual([]);
    expect(codesOf(office(lossy().slice(0, 1)))).not.toContain('packets-lost');
  });

  it('are none in the air, where sending again is usual', () => {
    const air = segmentFor('air:scan|5', 'air', { lowBps: 300e6, highBps: 600e6 });
    const input = office(lossy({ down: 120, link: air.id }));
    expect(codesOf({ ...input, segments: [...input.segments, air] })).not.toContain('packets-lost');
  });
});

describe('a far end that cannot judge the plan', () => {
  it('is named where its port shows less than the plan, and not where it shows enough', () => {
    expect(codesOf(office([], { outsidePeerBps: 94e6 }))).toEqual(['peer-below-plan']);
    expect(codesOf(office([], { outsidePeerBps: 451e6 }))).toEqual([]);
    expect(codesOf(office([], { outsidePeerBps: null }))).toEqual([]);
    expect(codesOf(office([], { outsidePeerBps: 94e6, plan: null }))).toEqual([]);
  });
});

describe('a tunnel', () => {
  const TUNNEL = segmentFor('tunnel:q', 'tunnel', { lowBps: 16e6, highBps: 20e6 });
  const through = (down: number): Occasion => {
    const out = occasionOf('press', 'internet', { down });
    return { ...out, reach: 'tunnel', path: [...out.path.slice(0, 5), TUNNEL.id, 'far-line:q', 'peer:tunnel:q'] };
  };
  const told = (down: number, farUpBps: number) => {
    const farPlan = { ...PLAN, downBps: farUpBps, slowerEnd: 'up there' };
    const input = office([through(down)], { tunnelPlans: new Map([['tunnel:q', farPlan]]) });
    return codesOf({ ...input, segments: [...input.segments, TUNNEL] });
  };

  it('that gives what its slower end lets through is a fact, and no fault', () => {
    expect(told(18.7, 20e6)).toEqual(['tunnel-slower-end']);
  });

  it('that gives less than that is not explained by it', () => {
    expect(told(7, 20e6)).toEqual([]);
  });

  it('whose other end is as fast as this one has no slower end', () => {
    expect(told(480, 500e6)).toEqual([]);
  });
});

describe('runs that contradict each other', () => {
  const pair = (first: number, second: number, apartMs = 60_000) =>
    codesOf(
      office([
        occasionOf('scan', 'local', { down: first, atMs: 1000 }),
        occasionOf('scan', 'local', { down: second, atMs: 1000 + apartMs }),
      ]),
    );

  it('are shown when they are of one way and about one time', () => {
    expect(pair(940, 430)).toEqual(['contradicting-runs']);
    expect(pair(430, 940)).toEqual(['contradicting-runs']);
  });

  it('are none when they nearly agree, when days lie between, or over the air', () => {
    expect(pair(940, 900)).toEqual([]);
    expect(pair(940, 430, 3 * DAY_MS)).toEqual([]);
    const air = segmentFor('air:scan|5', 'air', { lowBps: 300e6, highBps: 600e6 });
    const runs = [500, 120].map((down, atMs) => occasionOf('scan', 'local', { down, atMs, link: air.id }));
    const input = office(runs);
    expect(codesOf({ ...input, segments: [...input.segments, air] })).toEqual([]);
  });

  it('are of the two newest: what was odd before does not contradict for ever', () => {
    const rates = [430, 940, 938];
    expect(codesOf(office(rates.map((down, atMs) => occasionOf('scan', 'local', { down, atMs }))))).toEqual([]);
  });
});
