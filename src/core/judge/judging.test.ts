import { decidingWords } from '../words/suitability-words';
import { copyTime } from './copy-time';
import { planThroughTunnel, type Plan } from '../domain/plan';
import { planAnswerOf } from './plan-answer';
import { suitabilityOf, type SuitabilityInput } from './suitability';
import { delayImpairment, meanOpinionScore, transmissionRating } from './voice-rating';

describe('the E-model (ITU-T G.107)', () => {
  it('has the rating of the default path without impairments, and its mean opinion score', () => {
    const rating = transmissionRating({ oneWayMs: 10, jitterMs: 1, lossRatio: 0 });
    expect(rating).toBe(93.2);
    expect(meanOpinionScore(rating)).toBeCloseTo(4.41, 2);
  });

  it('charges no delay up to 100 ms, and the amounts of the recommendation beyond', () => {
    expect(delayImpairment(100)).toBe(0);
    // Idd at 200 ms: X = 1, 25 × (2^(1/6) − 3 × (1 + 3⁻⁶)^(1/6) + 2).
    expect(delayImpairment(200)).toBeCloseTo(25 * (2 ** (1 / 6) - 3 * (1 + 1 / 729) ** (1 / 6) + 2), 9);
    expect(delayImpairment(400)).toBeGreaterThan(20);
  });

  it('falls with loss, and stays between 1 and 4.5 in the score', () => {
    const at = (lossRatio: number) => transmissionRating({ oneWayMs: 20, jitterMs: 1, lossRatio });
    // 5 % with the robustness of G.711 with concealment: 95 × 5 / (5 + 25.1) = 15.8.
    expect(93.2 - at(0.05)).toBeCloseTo(15.78, 2);
    expect(at(0.05)).toBeLessThan(at(0.01));
    expect(meanOpinionScore(0)).toBe(1);
    expect(meanOpinionScore(100)).toBe(4.5);
  });
});

describe('suitability', () => {
  const good: SuitabilityInput = {
    ...{ downBps: 486e6, upBps: 97e6, loadedRttMs: 18, jitterMs: 0.4, lossRatio: 0 },
    ...{ steady: true, wired: true, upAddedMs: 8 },
  };
  const wordsOf = (input: SuitabilityInput) =>
    Object.fromEntries(suitabilityOf(input).map(({ use, word }) => [use, word]));

  it('finds a fast line with short queues fine for everything', () => {
    expect(new Set(Object.values(wordsOf(good)))).toEqual(new Set(['fine']));
  });

  it('finds the same line useless for live use when the upload queue is deep, and says by which figure', () => {
    const bloated = suitabilityOf({ ...good, loadedRttMs: 234, jitterMs: 4, upAddedMs: 220 });
    const of = (use: string) => bloated.find((one) => one.use === use)!;
    expect(of('remote-desktop')).toMatchObject({ word: 'not usable' });
    expect(decidingWords(of('remote-desktop').because)).toContain('234 ms');
    expect(of('meeting').word).toBe('strained');
    expect(of('streaming').word).toBe('fine');
    expect(of('backup').word).toBe('not usable');
  });

  it('wants a cable for playing music, and a steady rate for a remote desktop', () => {
    expect(wordsOf({ ...good, wired: false })['music']).toBe('strained');
    expect(wordsOf({ ...good, steady: false })['remote-desktop']).toBe('strained');
  });

  it('leaves out what was not measured instead of guessing', () => {
    expect(wordsOf({ ...good, upBps: null, upAddedMs: null })).not.toHaveProperty('meeting');
    expect(decidingWords(suitabilityOf({ ...good, lossRatio: null })[0]!.because)).toContain('loss not measured');
    expect(
      suitabilityOf({ ...good, downBps: null, upBps: null, loadedRttMs: null, jitterMs: null, upAddedMs: null }),
    ).toEqual([]);
  });
});

describe('copy time', () => {
  it('of 100 GB at 500 Mb/s is 27 minutes and a half, and longer at a bad hour', () => {
    expect(copyTime(100e9, [500e6])!.usualSeconds).toBeCloseTo(1648, 6);
    const { usualSeconds, badSeconds } = copyTime(1e9, [100e6, 500e6, 500e6, 500e6, 500e6])!;
    expect(badSeconds).toBeGreaterThan(usualSeconds * 1.5);
  });

  it('is unknown without rates', () => {
    expect(copyTime(1e9, [])).toBeNull();
  });
});

describe('a tunnel between two lines', () => {
  const line = (name: string, downBps: number, upBps: number, basis: Plan['basis'] = 'payload'): Plan => ({
    ...{ name, downBps, upBps, leastDownBps: downBps / 2, leastUpBps: null, basis, fullFrom: 0.9 },
  });

  it('gives in each direction what the slower end gives, and promises no least rate', () => {
    const plan = planThroughTunnel(line('fibre', 500e6, 100e6), line('cable', 150e6, 20e6));
    expect(plan).toMatchObject({ downBps: 20e6, upBps: 100e6, leastDownBps: null, slowerEnd: 'fibre and cable' });
    const back = planThroughTunnel(line('cable', 150e6, 20e6), line('fibre', 500e6, 100e6));
    expect(back).toMatchObject({ downBps: 100e6, upBps: 20e6 });
  });

  it('counts payload also where a contract counts what is on the line', () => {
    const plan = planThroughTunnel(line('fibre', 500e6, 100e6), line('cable', 150e6, 15.18e6, 'line'));
    expect(plan.downBps / 14.48e6).toBeCloseTo(1, 6);
    expect(plan.basis).toBe('payload');
  });

  it('is no provider’s promise: a run through it says nothing about a plan', () => {
    const plan = planThroughTunnel(line('fibre', 500e6, 100e6), line('cable', 150e6, 20e6));
    const rate = (steadyBps: number) => ({ rate: { steadyBps, intervalBps: null }, oneFigure: true, flags: [] });
    expect(planAnswerOf('tunnel', plan, rate(20e6), rate(100e6))).toBeNull();
    expect(planAnswerOf('internet', line('fibre', 20e6, 100e6), rate(20e6), rate(100e6))!.word).toBe('met');
  });
});
