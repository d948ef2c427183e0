import { seededRandom } from '../stats/seeded-random';
import { markRates, type RunSeconds } from './mark-rate';

const START_MS = 1_700_000_000_000;
const MBPS = 1e6;

/** Two minutes down and two up, as a soak has them; `rate` of each second, Mb/s. */
function soak(rate: (second: number) => number): RunSeconds {
  const one = (from: number, to: number) =>
    Array.from({ length: 250 }, (_, second) => (second >= from && second < to ? MBPS * rate(second) : null));
  return { startedAtMs: START_MS, fromMs: 0, downBps: one(6, 126), upBps: one(128, 248) };
}
const between = (from: number, to: number) => ({ fromMs: START_MS + 1000 * from, untilMs: START_MS + 1000 * to });

/** Noise of which neighbouring seconds know of each other, as those of TCP do (AR(1)). */
function noise(random: () => number, share: number, memory: number) {
  let last = 0;
  return () => {
    const normal = Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    last = memory * last + Math.sqrt(1 - memory ** 2) * normal;
    return 1 + share * last;
  };
}

describe('what a soak moved beside a mark', () => {
  it('says how much less came through while it stood', () => {
    const wobble = noise(seededRandom(3), 0.02, 0.5);
    const rates = markRates(
      soak((second) => (second >= 50 && second < 90 ? 60 : 90) * wobble()),
      between(50, 90),
    );
    expect(rates).toHaveLength(1);
    const [down] = rates;
    expect(down!.way).toBe('down');
    expect(down!.duringBps! / down!.beforeBps!).toBeCloseTo(2 / 3, 1);
    expect(down!.afterBps! / MBPS).toBeCloseTo(90, -1);
    expect(down!.against).toMatchObject({ real: true, matters: 'yes' });
  });

  it('leaves the direction out that the mark did not touch, and tells nothing of a mark beside the run', () => {
    const steady = soak(() => 90);
    expect(markRates(steady, between(150, 200)).map(({ way }) => way)).toEqual(['up']);
    expect(markRates(steady, between(60, 200)).map(({ way }) => way)).toEqual(['down', 'up']);
    expect(markRates(steady, between(-300, -100))).toEqual([]);
    expect(markRates(steady, between(400, 500))).toEqual([]);
  });

  it('does not call a mark of some seconds different', () => {
    expect(
      markRates(
        soak(() => 90),
        between(60, 65),
      ),
    ).toEqual([]);
    const [down] = markRates(
      soak(() => 90),
      between(60, 72),
    );
    expect(down).toMatchObject({ against: null, beforeBps: 90 * MBPS, duringBps: 90 * MBPS });
  });

  it('holds a line that died while it was marked against what it was', () => {
    const [down] = markRates(
      soak((second) => (second >= 50 && second < 90 ? 0 : 90)),
      between(50, 90),
    );
    expect(down).toMatchObject({ duringBps: 1000, against: { real: true, matters: 'yes' } });
  });

  it.each([0, 0.5, 0.8])('is wrong in about 5 of 100 marks that did nothing, seconds alike by %f', (memory) => {
    const random = seededRandom(11);
    let told = 0;
    let wrong = 0;
    for (let times = 0; times < 400; times += 1) {
      const wobble = noise(random, 0.05, memory);
      const from = 30 + Math.floor(30 * random());
      const [down] = markRates(
        soak(() => 90 * wobble()),
        between(from, from + 40),
      );
      if (down!.against === null) continue;
      told += 1;
      if (down!.against.real) wrong += 1;
    }
    expect(told).toBe(400);
    // 20 expected; 35 or more come by chance once in a thousand.
    expect(wrong).toBeLessThan(35);
  });
});
