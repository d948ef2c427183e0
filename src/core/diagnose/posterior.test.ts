import fc from 'fast-check';
import { binsOf, logLikelihood, posteriorOf, soundOfPath, type Evidence, type Suspect } from './posterior';

const suspect = (prior: number, highBps: number | null = null, signs = 0): Suspect => ({
  ...{ prior, signs },
  sound: highBps === null ? null : { lowBps: 0.9 * highBps, highBps },
});
const seen = (path: readonly number[], bps: number): Evidence => ({ path, bps, spread: null });

/** The same by adding up every fault set and every bin one by one, as the definition says. */
function byEnumeration(
  suspects: readonly Suspect[],
  evidence: readonly Evidence[],
  complaints: readonly (readonly number[])[],
): number[] {
  const sounds = evidence.map(({ path }) => soundOfPath(path, suspects));
  const bins = suspects.map(({ sound }, place) => {
    const asked = evidence.map(({ path, bps }, i) =>
      path.includes(place) ? Math.max(sounds[i]?.highBps ?? 0, bps) : 0,
    );
    const reference = sound?.highBps ?? Math.max(0, ...asked);
    return reference === 0 ? [] : binsOf(sound, reference);
  });
  const weights = new Map<string, number>();
  const weigh = (set: readonly (readonly [number, number])[]) => {
    let log = 0;
    for (const [place] of set) {
      const { prior, signs } = suspects[place]!;
      log += Math.log(prior / (1 - prior) / 12) + signs;
    }
    evidence.forEach((each, index) => {
      const sound = sounds[index];
      if (sound === null || sound === undefined) return;
      const on = set.filter(([place]) => each.path.includes(place)).map(([place, bin]) => bins[place]![bin]!);
      const least = on.sort((a, b) => a.highBps - b.highBps)[0];
      const range =
        least === undefined
          ? sound
          : { lowBps: Math.min(sound.lowBps, least.lowBps), highBps: Math.min(sound.highBps, least.highBps) };
      log += logLikelihood(each, range, least === undefined);
    });
    for (const path of complaints) log += Math.log((set.some(([place]) => path.includes(place)) ? 0.5 : 0.15) / 0.15);
    const key = set.map(([place]) => place).join(' ');
    weights.set(key, (weights.get(key) ?? 0) + Math.exp(log));
  };
  weigh([]);
  bins.forEach((own, a) => own.forEach((_, i) => weigh([[a, i]])));
  bins.forEach((own, a) =>
    bins.forEach((others, b) => {
      if (a < b)
        own.forEach((_, i) =>
          others.forEach((__, j) =>
            weigh([
              [a, i],
              [b, j],
            ]),
          ),
        );
    }),
  );
  const total = [...weights.values()].reduce((sum, weight) => sum + weight, 0);
  return suspects.map((_, place) => {
    const of = [...weights].filter(([key]) => key.split(' ').includes(String(place)));
    return of.reduce((sum, [, weight]) => sum + weight, 0) / total;
  });
}

describe('the posterior over what holds back', () => {
  it('is what adding up every set of none, one and two faults gives', () => {
    const priors = fc.double({ min: 0.02, max: 0.4, noNaN: true });
    const rate = fc.double({ min: 5e6, max: 950e6, noNaN: true });
    const sound = fc.constantFrom(null, 100e6, 500e6, 941e6);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(priors, sound), { minLength: 3, maxLength: 4 }),
        fc.array(fc.tuple(rate, fc.integer({ min: 1, max: 14 })), { minLength: 1, maxLength: 4 }),
        fc.array(fc.integer({ min: 1, max: 14 }), { maxLength: 2 }),
        (drawn, runs, said) => {
          const suspects = drawn.map(([prior, highBps]) => suspect(prior, highBps));
          const places = (mask: number) => suspects.flatMap((_, place) => (mask & (1 << place) ? [place] : []));
          const evidence = runs.map(([bps, mask]) => seen(places(mask), bps));
          const complaints = said.map(places);
          const { marginal } = posteriorOf(suspects, evidence, complaints);
          byEnumeration(suspects, evidence, complaints).forEach((wanted, place) =>
            expect(marginal[place]).toBeCloseTo(wanted, 6),
          );
        },
      ),
      { numRuns: 40, seed: 7 },
    );
  });

  it('stays near the priors where nothing was measured, and accuses nobody where nothing is known', () => {
    const suspects = [suspect(0.1), suspect(0.08)];
    const { explanations } = posteriorOf(suspects, [seen([0, 1], 20e6)]);
    expect(explanations[0]!.suspects).toEqual([]);
  });

  it('believes what is nearer to the measured rate, and names about that rate', () => {
    const suspects = [suspect(0.1), suspect(0.08, 941e6)];
    const { marginal, explanations } = posteriorOf(suspects, [seen([0, 1], 94e6), seen([0, 1], 92e6)]);
    expect(marginal[0]! + marginal[1]!).toBeGreaterThan(0.97);
    const [capacity] = explanations[0]!.capacitiesBps;
    expect(capacity! / 93e6).toBeGreaterThan(0.8);
    expect(capacity! / 93e6).toBeLessThan(1.25);
  });

  it('is not moved by one odd run among sound ones', () => {
    const suspects = [suspect(0.1), suspect(0.08, 941e6)];
    const sound = Array.from({ length: 5 }, () => seen([0, 1], 935e6));
    const { marginal } = posteriorOf(suspects, [...sound, seen([0, 1], 300e6)]);
    expect(Math.max(...marginal)).toBeLessThan(0.1);
  });
});
