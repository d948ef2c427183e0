import type { Plan } from '../domain/plan';
import { seededRandom } from '../stats/seeded-random';
import { drawGroup } from '../judge/compare/simulated-groups';
import { findingWords, STRENGTH_WORDS } from '../words/finding-words';
import { diagnose } from './diagnosis';
import type { DiagnosisInput } from './diagnosis-input';
import type { Occasion } from './observation';
import { occasionOf, onCable, segmentFor, SHARED } from './office-for-tests';
import { NOTHING_SAID } from './said';

const PLAN: Plan = {
  ...{ name: 'Tarnfell Fibre 500/100', downBps: 500e6, upBps: 100e6, basis: 'payload', fullFrom: 0.9 },
  ...{ leastDownBps: 300e6, leastUpBps: 60e6 },
};
const GIGABIT = { cableBps: 1e9, cable: null };

function office(occasions: readonly Occasion[], changes: Partial<DiagnosisInput> = {}): DiagnosisInput {
  return {
    segments: [...onCable('press'), ...onCable('bench'), ...onCable('scan'), ...SHARED],
    ...{ occasions, plan: PLAN, tunnelPlans: new Map(), outsidePeerBps: null, freshFromMs: 0 },
    ...{ generations: new Map(), said: NOTHING_SAID, swaps: [] },
    devices: ['press', 'bench', 'scan'].map((id) => ({ id, name: id, ...GIGABIT })),
    ...changes,
  };
}
const SOUND = [
  occasionOf('press', 'local', { down: 940, up: 938, addedUp: 3, addedDown: 3 }),
  occasionOf('press', 'internet', { down: 487, up: 97, addedUp: 12, addedDown: 10 }),
  occasionOf('bench', 'local', { down: 939, up: 937, addedUp: 3, addedDown: 3 }),
  occasionOf('bench', 'internet', { down: 485, up: 97, addedUp: 11, addedDown: 10 }),
];
const codes = (input: DiagnosisInput) => diagnose(input).findings.map(({ facts }) => facts.code);

describe('what stands out', () => {
  it('is nothing where all is well, and nothing where nothing was measured', () => {
    expect(codes(office(SOUND))).toEqual([]);
    expect(codes(office([]))).toEqual([]);
    expect(codes(office(SOUND.slice(0, 1)))).toEqual([]);
  });

  it('is a cable that came up slower than the others: read off, not inferred', () => {
    const devices = office([]).devices.map((each) => (each.id === 'scan' ? { ...each, cableBps: 100e6 } : each));
    const [finding] = diagnose(office(SOUND, { devices })).findings;
    expect(finding).toMatchObject({ strength: 'fact', deviceIds: ['scan'] });
    expect(finding!.facts).toMatchObject({ code: 'cable-came-up-slow', negotiatedBps: 100e6, othersCount: 2 });
    expect(findingWords(finding!).sentence).toBe(
      'The cable of scan came up at 100 Mb/s, where 2 others of this office came up at 1000.',
    );
  });

  it('names of two other cables a rate that one of them has, never one between', () => {
    const cables = { press: 2.5e9, bench: 1e9, scan: 100e6 } as const;
    const devices = Object.entries(cables).map(([id, cableBps]) => ({ id, name: id, cableBps, cable: null }));
    const slow = diagnose(office(SOUND, { devices })).findings.flatMap(({ facts, deviceIds }) =>
      facts.code === 'cable-came-up-slow' ? [{ deviceIds, othersBps: facts.othersBps }] : [],
    );
    expect(slow).toContainEqual({ deviceIds: ['scan'], othersBps: 2.5e9 });
    for (const { othersBps } of slow) expect(Object.values(cables)).toContain(othersBps);
  });

  it('is gone with the swap of what it was found in, and what was before is drawn as proven no more', () => {
    const slow = [1, 2, 3].map((atMs) => occasionOf('scan', 'local', { down: 385, up: 290, atMs }));
    const before = office([...SOUND, ...slow]);
    expect(diagnose(before).findings[0]!.segments.map(({ deviceId }) => deviceId)).toContain('scan');
    const [device, cable] = onCable('scan');
    const other = { ...cable!, id: 'cable:scan~1', generation: 1 };
    const sound = occasionOf('scan', 'local', { down: 940, up: 938, atMs: 9, link: other.id });
    const after = diagnose({
      ...office([...SOUND, ...slow, sound]),
      segments: [...before.segments, other],
      generations: new Map([['cable:scan', 1]]),
    });
    expect(after.findings).toEqual([]);
    expect(after.segments.filter(({ segment }) => segment.kind === 'cable').map(({ segment }) => segment.id)).toEqual([
      ...['cable:press', 'cable:bench', 'cable:scan~1'],
    ]);
    expect(after.segments.find(({ segment }) => segment.id === device!.id)!.proven.down!.bps).toBeGreaterThan(900e6);
  });

  it('holds a swap that nothing was measured after for neither sound nor slow', () => {
    const slow = [1, 2].map((atMs) => occasionOf('scan', 'local', { down: 385, up: 290, atMs }));
    const { findings, segments } = diagnose(
      office([...SOUND, ...slow], {
        generations: new Map([
          ['device:scan', 1],
          ['cable:scan', 1],
        ]),
      }),
    );
    expect(findings).toEqual([]);
    expect(segments.filter(({ segment }) => segment.deviceId === 'scan')).toEqual([]);
  });

  it('is a device beside another that is faster over the same way, both in the sentence', () => {
    const slow = occasionOf('scan', 'local', { down: 385, up: 290, flags: ['device-limited'] });
    const [finding] = diagnose(office([...SOUND, slow])).findings;
    expect(finding).toMatchObject({ strength: 'found', deviceIds: ['scan'] });
    expect(finding!.segments.map(({ id }) => id)).toEqual(['device:scan']);
    expect(findingWords(finding!).sentence).toBe(
      'Scan makes 290 of 941 Mb/s up. press makes 938 over what they share. It is the device itself.',
    );
    expect(finding!.evidence).toEqual({ for: slow.runIds, against: [] });
  });

  it('names two that cannot be told apart yet together, as no more than likely', () => {
    const slow = occasionOf('scan', 'local', { down: 385 });
    const [finding, ...others] = diagnose(office([...SOUND, slow])).findings;
    expect(others).toEqual([]);
    expect(finding!.segments.map(({ kind }) => kind).sort()).toEqual(['cable', 'device']);
    expect(finding!.strength).toBe('likely');
    expect(findingWords(finding!).nextStep).toMatch(/Hunt/);
  });

  it('is a line below its plan when several devices fall short outside and none inside', () => {
    const short = ['press', 'bench', 'scan'].flatMap((name) => [
      occasionOf(name, 'local', { down: 940, up: 938 }),
      occasionOf(name, 'internet', { down: 210, up: 97 }),
    ]);
    const findings = diagnose(office(short)).findings;
    const sentences = findings.map((each) => findingWords(each).sentence).join(' ');
    expect(findings[0]!.segments.map(({ kind }) => kind)).toContain('line');
    // Nothing here tells line, router and what is beyond apart: they stand together, and the least of the contract is missed.
    expect(sentences).toMatch(/router|beyond/);
  });

  it('is a queue: whoever uploads makes everybody wait, by what the line adds beyond the links', () => {
    const waits = ['press', 'bench'].flatMap((name) => [
      occasionOf(name, 'local', { down: 940, up: 938, addedUp: 3, addedDown: 3 }),
      occasionOf(name, 'internet', { down: 487, up: 97, addedUp: 230, addedDown: 12 }),
    ]);
    const [finding] = diagnose(office(waits)).findings;
    expect(finding!.facts).toMatchObject({
      code: 'queue-too-deep',
      where: 'line',
      direction: 'up',
      rating: 'collapsed',
    });
    expect(findingWords(finding!).sentence).toMatch(/^Whoever uploads makes everybody wait 227 ms \(2 devices\)/);
    expect(finding!.strength).toBe('found');
  });

  it('is a queue of the air where runs inside wait as long', () => {
    const air = segmentFor(
      'air:scan|2.4',
      'air',
      { lowBps: 20e6, highBps: 100e6 },
      { name: 'scan', band: '2.4', deviceId: 'scan' },
    );
    const waits = [
      occasionOf('scan', 'local', { down: 60, up: 50, addedUp: 160, addedDown: 150, link: air.id }),
      occasionOf('scan', 'internet', { down: 60, up: 50, addedUp: 165, addedDown: 150, link: air.id }),
    ];
    const input = office([...SOUND, ...waits]);
    const queues = diagnose({ ...input, segments: [...input.segments, air] }).findings.filter(
      ({ facts }) => facts.code === 'queue-too-deep',
    );
    expect(queues.map(({ facts }) => facts.code === 'queue-too-deep' && facts.where)).toEqual(['inside', 'inside']);
  });

  it('is a line that sags in some hours, and nobody is accused of its evenings', () => {
    const hours = [8, 11, 14, 17, 20];
    const random = seededRandom(3);
    const weeks = Array.from({ length: 14 }, (_, day) =>
      hours.map((hour) => {
        const [noise] = drawGroup('normal', 1, random);
        const down = (hour === 20 ? 310 : 485) * Math.exp(0.01 * noise!);
        return occasionOf('press', 'internet', { down, up: 97, hour, atMs: day * 24 * 3600_000 + hour * 3600_000 });
      }),
    ).flat();
    const { findings } = diagnose(office([...SOUND, ...weeks]));
    expect(findings.map(({ facts }) => facts.code)).toEqual(['line-slow-in-hours']);
    expect(findings[0]!.hours).toEqual([20]);
    expect(findingWords(findings[0]!).sentence).toMatch(
      /^Between 20:00 and 21:00 the line gives 3\d\d Mb\/s down; else 4\d\d/,
    );
  });

  it('is no line that sags where others used it in those hours, as its router counted', () => {
    const weeks = Array.from({ length: 14 }, (_, day) =>
      [8, 11, 14, 17, 20].map((hour) => {
        const [up, flags] = hour === 20 ? [15, ['line-in-use'] as const] : [97, []];
        return occasionOf('press', 'internet', { down: 485, up, hour, flags, atMs: (day * 24 + hour) * 3600_000 });
      }),
    ).flat();
    expect(codes(office([...SOUND, ...weeks]))).toEqual([]);
    // The same without anybody who used it is the line's.
    const alone = weeks.map((each) => ({ ...each, flags: [] }));
    expect(codes(office([...SOUND, ...alone]))).toContain('line-slow-in-hours');
  });

  it('is what two runs of one way contradict each other by', () => {
    const runs = [940, 430].map((down, index) => occasionOf('scan', 'local', { down, atMs: 1000 + index }));
    expect(codes(office([...SOUND, ...runs.reverse()]))).toContain('contradicting-runs');
  });

  it('has figures of runs that were made over one way, never of a mix of inside and out', () => {
    const mixed = [
      ...[1, 2].map((atMs) => occasionOf('scan', 'local', { down: 412, atMs })),
      occasionOf('scan', 'internet', { down: 142, atMs: 3 }),
    ];
    const facts = diagnose(office([...SOUND, ...mixed])).findings.map((finding) => finding.facts);
    const held = facts.find(({ code }) => code === 'segment-holds-back');
    expect(held).toMatchObject({ measuredBps: 412e6, expectedBps: 941e6 });
  });

  it('is packets that are lost on the way of a slow cable, and not those of a fast one', () => {
    const lossy = [1, 2].map((atMs) => occasionOf('scan', 'local', { down: 320, resentShare: 0.012, atMs }));
    const found = diagnose(office([...SOUND, ...lossy])).findings.find(({ facts }) => facts.code === 'packets-lost')!;
    // Others cross the switch and the peer without losing anything: it is named where it can be.
    expect(found.segments.map(({ id }) => id)).toEqual(['cable:scan']);
    // Where it waits in a full queue, the queue dropped them.
    const queued = lossy.map((each) => ({ ...each, addedDownMs: 21 }));
    expect(codes(office([...SOUND, ...queued]))).not.toContain('packets-lost');
    const fast = [1, 2].map((atMs) => occasionOf('scan', 'local', { down: 939, resentShare: 0.012, atMs }));
    expect(codes(office([...SOUND, ...fast]))).not.toContain('packets-lost');
  });

  it('is a far end whose port is below the plan', () => {
    expect(codes(office(SOUND, { outsidePeerBps: 94e6 }))).toEqual(['peer-below-plan']);
  });

  it('is found in at most 1 of 100 offices in which nothing is wrong', () => {
    const random = seededRandom(21);
    let alarms = 0;
    for (let index = 0; index < 200; index += 1) {
      const noisy = (mbps: number) => mbps * Math.exp(-Math.abs(0.02 * drawGroup('normal', 1, random)[0]!));
      const runs = ['press', 'bench', 'scan'].flatMap((name) => [
        occasionOf(name, 'local', { down: noisy(940), up: noisy(938), addedUp: 3, addedDown: 3 }),
        occasionOf(name, 'internet', { down: noisy(490), up: noisy(98), addedUp: 15, addedDown: 12 }),
      ]);
      if (diagnose(office(runs)).findings.some(({ strength }) => strength !== 'hint')) alarms += 1;
    }
    expect(alarms).toBeLessThanOrEqual(2);
  });

  it('is said in whole sentences, whatever the names are', () => {
    const odd = `مكتب <i>${'long '.repeat(36)}</i>`;
    const devices = office([]).devices.map((each) => ({
      ...each,
      name: odd,
      cableBps: each.id === 'scan' ? 100e6 : 1e9,
    }));
    const segments = office([]).segments.map((each) => (each.deviceId === null ? each : { ...each, name: odd }));
    const slow = occasionOf('bench', 'local', { down: 200 });
    for (const finding of diagnose(office([...SOUND, slow], { devices, segments })).findings) {
      const { sentence, nextStep } = findingWords(finding);
      expect(sentence).toContain(odd);
      expect(sentence).toMatch(/\.$/);
      expect(nextStep).toMatch(/\.$/);
      expect(STRENGTH_WORDS[finding.strength]).not.toBe('');
    }
  });
});
