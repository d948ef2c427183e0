import { FITNESS_EFFECTS, type FitnessCode } from './fitness/fitness-flag';
import { reportOf } from './run-report';
import { OVER_GIGABIT, plainSamples } from '../run/samples-for-tests';
import { evidenceOf, judgesItsPath } from './evidence';
import { fairnessOf, togetherShareOf, type SharingRun } from './together-share';

const plain = { together: false, practice: false, leftOut: false, flags: [] as FitnessCode[] };

describe('what a run is evidence of', () => {
  it('is its path when it ran alone, or the practice line that stood in for one', () => {
    expect(evidenceOf(plain)).toBe('alone');
    expect(evidenceOf({ ...plain, practice: true })).toBe('practice');
    expect((['alone', 'practice'] as const).map(judgesItsPath)).toEqual([true, true]);
  });

  it('is only the sum when it shared its line on purpose, and nothing when it is void', () => {
    expect(evidenceOf({ ...plain, together: true, flags: ['shared-on-purpose'] })).toBe('together');
    expect(evidenceOf({ ...plain, together: true, flags: ['shared-on-purpose', 'same-machine'] })).toBe('voided');
    expect((['together', 'voided', 'left-out'] as const).map(judgesItsPath)).toEqual([false, false, false]);
  });

  it('is nothing once a technician has left it out, whatever else it is', () => {
    for (const more of [{}, { practice: true }, { together: true }, { flags: ['same-machine'] as FitnessCode[] }])
      expect(evidenceOf({ ...plain, ...more, leftOut: true })).toBe('left-out');
  });

  it('is void by every flag that voids but sharing', () => {
    const voiding = Object.entries(FITNESS_EFFECTS).filter(([, effect]) => effect === 'voids');
    for (const [code] of voiding)
      expect(evidenceOf({ ...plain, flags: [code as FitnessCode] })).toBe(
        code === 'shared-on-purpose' ? 'alone' : 'voided',
      );
  });

  it('never makes a share of 160 on a line of 500 starved', () => {
    const share = plainSamples({ downBps: 160e6, upBps: 33e6, idleMs: 14, loadedDownMs: 30, loadedUpMs: 40 });
    const report = reportOf(share, { ...OVER_GIGABIT, together: true });
    expect(report.verdict).toBe('no verdict');
    expect(report.planAnswer!.word).toBe('cannot tell');
    expect(reportOf(share, OVER_GIGABIT).verdict).toBe('starved');
  });
});

describe('runs that were started together', () => {
  /** Pulls at a rate from a time to a time. */
  const pulling = (bps: number, fromMs: number, toMs: number): SharingRun => {
    const atMs = Array.from({ length: (toMs - fromMs) / 50 + 1 }, (_, index) => fromMs + index * 50);
    const series = { atMs, bytes: [atMs.map((at) => Math.round(((at - fromMs) * bps) / 8000))] };
    const counted = { fromMs: fromMs + 1000, toMs };
    return { down: series, up: series, countedDown: counted, countedUp: counted, addedMs: bps / 1e6 };
  };

  it('are told as shares, their sum and how fair it was, over the time in which all of them pulled', () => {
    const share = togetherShareOf([pulling(160e6, 0, 6000), pulling(170e6, 300, 8000), pulling(165e6, 200, 7000)])!;
    expect(share.down!.sumBps / 495e6).toBeCloseTo(1, 2);
    expect(share.down!.overMs).toBe(4700);
    expect(share.down!.fairness).toBeGreaterThan(0.99);
    expect(share.addedMs).toBe(165);
  });

  it('have no sum where they did not pull at the same time, or one of them has no figure', () => {
    expect(togetherShareOf([pulling(160e6, 0, 3000), pulling(160e6, 4000, 9000)])!.down).toBeNull();
    expect(togetherShareOf([pulling(160e6, 0, 6000), { ...pulling(1e6, 0, 6000), down: null }])!.down).toBeNull();
    expect(togetherShareOf([pulling(160e6, 0, 6000)])).toBeNull();
  });

  it('are as fair as Jain’s index says: 1 for equal shares, 1/n when one has all', () => {
    expect(fairnessOf([5, 5, 5])).toBeCloseTo(1, 12);
    expect(fairnessOf([9, 0, 0])).toBeCloseTo(1 / 3, 12);
    expect(fairnessOf([0, 0])).toBeNull();
  });
});
