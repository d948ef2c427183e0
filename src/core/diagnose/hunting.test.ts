import { median } from '../stats/percentile';
import { seededRandom } from '../stats/seeded-random';
import { nextTests, openBits, questionOf, weighTest, type TestCandidate } from './next-test';
import { queueAdvice, type QueueTrial } from './queue-advice';
import { drawOffice, huntSimulated, isRight } from './simulated-office';
import type { NamedExplanation } from './suspicion';

const SOUND = { lowBps: 850e6, highBps: 941e6 };
const candidate = (id: string, path: readonly string[], minutes = 1): TestCandidate => ({
  id,
  path,
  minutes,
  sound: SOUND,
});
const because = (suspect: string, probability: number): NamedExplanation => ({
  ...{ suspects: [suspect], probability, capacitiesBps: [100e6] },
});

describe('the next test', () => {
  const doubt = [because('device', 0.5), because('cable', 0.5)];
  const question = questionOf(['device', 'cable'], [{ path: ['device'] }, { path: ['cable'] }]);

  it('is one that parts what is suspected; one that cannot change the mind is never proposed', () => {
    expect(openBits(doubt, question)).toBeCloseTo(1, 6);
    const both = candidate('both again', ['device', 'cable']);
    const neither = candidate('somebody else', ['hop']);
    const parts = candidate('another device on that cable', ['cable'], 5);
    expect(nextTests(doubt, [both, neither, parts], question).map((each) => each.candidate.id)).toEqual([parts.id]);
  });

  it('says what each outcome would mean', () => {
    const { ifFast, ifSlow, gainBits } = weighTest(doubt, candidate('x', ['cable']), question);
    expect(gainBits).toBeGreaterThan(0.8);
    expect(ifSlow.suspects[0]).toMatchObject({ id: 'cable', probability: 1 });
    expect(ifFast.suspects[0]).toMatchObject({ id: 'device', probability: 1 });
  });

  it('is the cheaper of two that tell as much', () => {
    const near = candidate('near', ['cable'], 1);
    const far = candidate('far', ['cable'], 6);
    expect(nextTests(doubt, [far, near], question)[0]!.candidate.id).toBe('near');
  });

  it('asks nothing about segments that no test parts: they are one answer', () => {
    const inseparable = questionOf(['line', 'beyond'], [{ path: ['line', 'beyond'] }, { path: [] }]);
    expect(openBits([because('line', 0.5), because('beyond', 0.5)], inseparable)).toBe(0);
  });
});

describe('a hunt', () => {
  const hunts = (faults: 1 | 2, order: 'telling' | 'nearest', offices: number) =>
    Array.from({ length: offices }, (_, index) => {
      const office = drawOffice(faults, seededRandom(900 + index));
      return { office, result: huntSimulated(office, order, seededRandom(77 * (index + 1))) };
    });
  const rightOf = (all: ReturnType<typeof hunts>) =>
    all.filter(({ office, result }) => isRight(office, result.found)).length / all.length;
  const wrongOf = (all: ReturnType<typeof hunts>) =>
    all.filter(({ office, result }) => result.found.length > 0 && !isRight(office, result.found)).length / all.length;

  it('finds one fault in 97 of 100 offices, says so wrongly in fewer than 2, in less time than a plain order', () => {
    const [telling, plain] = [hunts(1, 'telling', 60), hunts(1, 'nearest', 60)];
    expect(rightOf(telling)).toBeGreaterThanOrEqual(0.97);
    expect(wrongOf(telling)).toBeLessThanOrEqual(0.017);
    const minutes = (all: ReturnType<typeof hunts>) => all.reduce((sum, { result }) => sum + result.minutes, 0);
    expect(minutes(telling) / minutes(plain)).toBeLessThan(0.8);
  });

  it('finds one of two in 85 of 100', () => {
    const all = hunts(2, 'telling', 40);
    expect(rightOf(all)).toBeGreaterThanOrEqual(0.85);
    expect(wrongOf(all)).toBeLessThanOrEqual(0.05);
  });
});

describe('queue advice', () => {
  /** A router counts whole packets, 1500 bytes of which 1448 are payload. */
  const packets = (payloadBps: number) => (payloadBps * 1500) / 1448;
  /** A line that gives 97 up: a little below that its queue stays short, above it fills. */
  const HOLDS_BPS = packets(95e6);
  const behaves = (setBps: number, random: () => number): QueueTrial => ({
    setBps,
    rates: [1, 2, 3].map(() => Math.min((setBps * 1448) / 1500, 97e6) * (1 - 0.01 * random())),
    addedMs: [1, 2, 3].map(() => (setBps < HOLDS_BPS ? 8 + 6 * random() : 180 + 40 * random())),
  });

  it('ends in at most six steps within 5 % of the best figure', () => {
    for (let seed = 1; seed <= 20; seed += 1) {
      const random = seededRandom(seed);
      const steadyBps = [96e6, 97e6, 96.5e6];
      const trials: QueueTrial[] = [];
      for (;;) {
        const advice = queueAdvice({ steadyBps, trials, firmBelowMs: 30 })!;
        if (advice.status === 'done') {
          expect(advice.bps).toBeLessThan(HOLDS_BPS);
          expect(advice.bps).toBeGreaterThan(0.95 * HOLDS_BPS);
          expect(advice.costsShare).toBeGreaterThan(0.01);
          expect(advice.costsShare).toBeLessThan(0.07);
          expect(advice.addedMs).toBeLessThan(30);
          break;
        }
        expect(advice.status).toBe('set');
        expect(trials.length).toBeLessThan(6);
        trials.push(behaves(advice.status === 'set' ? advice.bps : 0, random));
      }
    }
  });

  it('waits for the runs of a setting, and begins at nine tenths of the lowest steady rate', () => {
    const first = queueAdvice({ steadyBps: [100e6, 96e6], trials: [], firmBelowMs: 30 });
    expect(first).toMatchObject({ status: 'set', step: 1 });
    if (first?.status === 'set') expect(first.bps / 1e6).toBeCloseTo(0.9 * packets(96), 6);
    const half: QueueTrial = { setBps: 86e6, rates: [85e6], addedMs: [9] };
    expect(queueAdvice({ steadyBps: [96e6], trials: [half], firmBelowMs: 30 })).toEqual({
      ...{ status: 'measure', bps: 86e6, wanted: 2 },
    });
  });

  it('says where one figure cannot hold the line, and where the queue is somewhere else', () => {
    expect(queueAdvice({ steadyBps: [100e6, 60e6], trials: [], firmBelowMs: 30 })).toMatchObject({ status: 'swings' });
    const trials: QueueTrial[] = [];
    for (let step = 0; step < 8; step += 1) {
      const advice = queueAdvice({ steadyBps: [100e6], trials, firmBelowMs: 30 })!;
      if (advice.status !== 'set') {
        expect(advice.status).toBe('no-help');
        return;
      }
      trials.push({ setBps: advice.bps, rates: [1, 2, 3].map(() => advice.bps), addedMs: [200, 210, 190] });
    }
    throw new Error(`it went on setting: ${median(trials.map(({ setBps }) => setBps))}`);
  });

  it('has nothing to say of a line that was never measured', () => {
    expect(queueAdvice({ steadyBps: [], trials: [], firmBelowMs: 30 })).toBeNull();
  });
});
