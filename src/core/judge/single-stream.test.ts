import { RUN_PROFILES } from '../run/run-profiles';
import { OVER_GIGABIT, plainSamples } from '../run/samples-for-tests';
import { sentenceOf } from '../words/sentence';
import { reportOf } from './run-report';

const SLOW = { downBps: 120e6, upBps: 97e6, idleMs: 14, loadedDownMs: 30, loadedUpMs: 40 };

describe('a run with one connection', () => {
  const samples = { ...plainSamples(SLOW), profile: 'single' as const };
  const report = reportOf(samples, OVER_GIGABIT);

  it('opens one, and no more', () => {
    expect(RUN_PROFILES.single.streams).toEqual({ first: 1, most: 1 });
  });

  it('has its figures, gets no verdict, and says nothing against the line', () => {
    expect(report.down.rate!.steadyBps / 120e6).toBeCloseTo(1, 1);
    expect(report.verdict).toBe('no verdict');
    expect(report.planAnswer!.word).toBe('cannot tell');
    expect(report.fitness.map(({ code }) => code)).toContain('single-stream');
    expect(sentenceOf(report, OVER_GIGABIT).held).toBe(
      'That is what one connection gets, as one copy has it; what the way can carry takes several.',
    );
    // The same samples, made with several, are held against the plan.
    const several = reportOf({ ...samples, profile: 'standard' }, OVER_GIGABIT);
    expect(several).toMatchObject({ verdict: 'starved', planAnswer: { word: 'not met' } });
  });
});
