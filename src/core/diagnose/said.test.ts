import { occasionOf, onCable, SHARED } from './office-for-tests';
import { CHECKS, ruledOutSigns, witnessesOf, type Complaint, type RuledOut } from './said';
import { suspicionOf } from './suspicion';
import { normal } from '../stats/normal';
import { seededRandom } from '../stats/seeded-random';

const OFFICE = [...onCable('press'), ...onCable('bench'), ...SHARED];
const WAY = occasionOf('bench', 'internet', {}).path;
const complaint = (atMs = 1000, of: Partial<Complaint> = {}): Complaint => ({
  ...{ deviceId: 'bench', path: WAY, atMs, hour: 10, explained: false },
  ...of,
});

describe('who says that it is slow', () => {
  // Half of what it should be, both within the device and its cable: nothing tells the two apart, and the rest is cleared.
  const runs = [
    occasionOf('press', 'local', { down: 940 }),
    occasionOf('press', 'internet', { down: 487 }),
    occasionOf('bench', 'local', { down: 700 }),
  ];
  const benchHoldsBack = (complaints: readonly Complaint[]) => {
    const { probability } = suspicionOf(OFFICE, runs, 'down', { complaints, ruledOut: [] });
    return probability.get('device:bench')! + probability.get('cable:bench')!;
  };

  it('is one witness, however often he says it, and none where what he waits for is known', () => {
    const [a, b] = [complaint(1), complaint(2)];
    expect(witnessesOf([b, a, complaint(3, { explained: true }), complaint(1, { deviceId: 'press' })])).toEqual([
      b,
      complaint(1, { deviceId: 'press' }),
    ]);
    expect(benchHoldsBack([a, b])).toBeCloseTo(benchHoldsBack([b]), 10);
  });

  it('makes what is on his way likelier, by no more than his word is worth', () => {
    const slight = [occasionOf('press', 'local', { down: 940 }), occasionOf('bench', 'local', { down: 850 })];
    const odds = (complaints: readonly Complaint[]) => {
      const { probability } = suspicionOf(OFFICE, slight, 'down', { complaints, ruledOut: [] });
      const p = probability.get('cable:bench')!;
      return p / (1 - p);
    };
    expect(odds([complaint()])).toBeGreaterThan(1.5 * odds([]));
    expect(odds([complaint()])).toBeLessThanOrEqual((0.5 / 0.15) * odds([]) * 1.001);
  });

  it('accuses nobody else once what was found on his way explains it', () => {
    const slow = [
      ...[occasionOf('press', 'local', { down: 940 }), occasionOf('press', 'internet', { down: 487 })],
      { ...occasionOf('bench', 'local', { down: 94 }), flags: ['device-limited'] as const },
      occasionOf('bench', 'local', { down: 93 }),
    ];
    const of = (complaints: readonly Complaint[]) =>
      suspicionOf(OFFICE, slow, 'down', { complaints, ruledOut: [] }).probability;
    expect(of([]).get('device:bench')).toBeGreaterThan(0.9);
    expect(of([complaint()]).get('cable:bench')).toBeCloseTo(of([]).get('cable:bench')!, 2);
  });

  it('finds nothing in a sound office, whoever complains: at most 1 in 100 of draws', () => {
    const random = seededRandom(11);
    let found = 0;
    const DRAWS = 400;
    for (let draw = 0; draw < DRAWS; draw += 1) {
      const noisy = (mbps: number) => Math.min(mbps * 1.01, mbps * (1 - 0.03 + 0.02 * normal(random)));
      const sound = ['press', 'bench'].flatMap((device) => [
        occasionOf(device, 'local', { down: noisy(941) }),
        occasionOf(device, 'internet', { down: noisy(495) }),
      ]);
      const complaints = ['press', 'bench'].map((deviceId) =>
        complaint(1, { deviceId, path: occasionOf(deviceId, 'internet', {}).path }),
      );
      const { probability } = suspicionOf(OFFICE, sound, 'down', { complaints, ruledOut: [] });
      if (Math.max(...probability.values()) >= 0.9) found += 1;
    }
    expect(found / DRAWS).toBeLessThanOrEqual(0.01);
  });
});

describe('what a look has ruled out', () => {
  const out = (...checks: RuledOut['check'][]) => checks.map((check): RuledOut => ({ check, deviceId: 'bench' }));
  const device = { kind: 'device', deviceId: 'bench' } as const;

  it('takes its share of the reasons away, each once', () => {
    expect(Math.exp(ruledOutSigns(device, []))).toBe(1);
    expect(Math.exp(ruledOutSigns(device, out('backup')))).toBeCloseTo(0.85);
    expect(Math.exp(ruledOutSigns(device, out('backup', 'backup', 'update')))).toBeCloseTo(0.7);
  });

  it('speaks of that part alone', () => {
    expect(ruledOutSigns({ kind: 'device', deviceId: 'press' }, out('backup'))).toBe(0);
    expect(ruledOutSigns({ kind: 'line', deviceId: null }, out('backup'))).toBe(0);
    expect(Math.exp(ruledOutSigns({ kind: 'line', deviceId: null }, out('others-idle')))).toBeCloseTo(0.7);
  });

  it('never rules a part out whole: there are reasons that nobody thought of', () => {
    for (const kind of ['device', 'vpn', 'line'] as const) {
      const of = Object.values(CHECKS).filter(({ kinds }) => (kinds as readonly string[]).includes(kind));
      expect(of.reduce((sum, { share }) => sum + share, 0)).toBeLessThan(1);
    }
  });

  it('leaves the cable where the device was as likely before', () => {
    const runs = [
      occasionOf('press', 'local', { down: 940 }),
      occasionOf('press', 'internet', { down: 487 }),
      occasionOf('bench', 'local', { down: 384 }),
    ];
    const of = (ruledOut: readonly RuledOut[]) =>
      suspicionOf(OFFICE, runs, 'down', { complaints: [], ruledOut }).probability;
    expect(of(out('backup', 'update')).get('cable:bench')!).toBeGreaterThan(of([]).get('cable:bench')! + 0.05);
    expect(of(out('backup', 'update')).get('device:bench')!).toBeLessThan(of([]).get('device:bench')! - 0.05);
  });
});
