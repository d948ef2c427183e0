import { reportOf } from './run-report';
import { sentenceOf } from '../words/sentence';
import type { RunConditions } from '../run/run-conditions';
import { OVER_GIGABIT, plainSamples } from '../run/samples-for-tests';
import type { Plan } from '../domain/plan';
import { verdictOf } from './verdict';

const plan = (downBps: number, upBps: number, more: Partial<Plan> = {}): Plan => ({
  ...{ name: 'made up', downBps, upBps, leastDownBps: null, leastUpBps: null, basis: 'payload', fullFrom: 0.9 },
  ...more,
});
const measured = (downBps: number, upBps: number, changes: Partial<RunConditions> = {}) =>
  reportOf(plainSamples({ downBps, upBps, idleMs: 14, loadedDownMs: 20, loadedUpMs: 20 }), {
    ...OVER_GIGABIT,
    ...changes,
  });

describe('what a run says about the plan', () => {
  it('is "not met" on a gigabit cable when a gigabit plan gives half: the cable could show far more', () => {
    const { planAnswer, fitness } = measured(500e6, 99.9e6, { plan: plan(1000e6, 200e6) });
    expect(planAnswer).toMatchObject({ word: 'not met', down: { word: 'not met' }, up: { word: 'not met' } });
    expect(fitness.map(({ code }) => code)).not.toContain('link-below-plan');
  });

  it('is judged direction by direction: a slow cable hides the download, and has nothing to do with the upload', () => {
    const link = { medium: 'wired', negotiatedBps: 100e6, mtuBytes: 1500 } as const;
    const { planAnswer } = measured(93.5e6, 12e6, { link, plan: plan(500e6, 50e6) });
    expect(planAnswer).toMatchObject({
      word: 'not met',
      down: { word: 'cannot tell', because: ['link-below-plan'] },
      up: { word: 'not met' },
    });
  });

  it('is "met" in a direction that reaches it, whatever the other does', () => {
    const { planAnswer } = measured(310e6, 98e6);
    expect(planAnswer).toMatchObject({ word: 'not met', down: { word: 'not met' }, up: { word: 'met' } });
  });

  it('cannot be told where a peer’s own port is near what was measured, and can where it is not', () => {
    expect(measured(93e6, 90e6, { peerLinkBps: 100e6 }).planAnswer).toMatchObject({
      down: { word: 'cannot tell', because: ['peer-below-plan'] },
    });
    expect(measured(310e6, 98e6, { plan: plan(1200e6, 100e6), peerLinkBps: 1e9 }).planAnswer!.down!.word).toBe(
      'not met',
    );
  });
});

describe('what others used of the line', () => {
  const lineUse = { downBps: 180e6, upBps: 82.6e6, fromMs: 0, untilMs: 60_000 };
  const least = plan(500e6, 100e6, { leastDownBps: 300e6, leastUpBps: 60e6 });
  const heldOf = (downMbps: number, upMbps: number, use: Partial<typeof lineUse>) => {
    const conditions = { ...OVER_GIGABIT, plan: least, lineUse: { ...lineUse, ...use } };
    return sentenceOf(measured(downMbps * 1e6, upMbps * 1e6, conditions), conditions).held;
  };

  it('is said in the sentence, of the way that came short, instead of what the contract names at least', () => {
    expect(heldOf(324, 14.8, { downBps: 2e6 })).toBe(
      'The plan is 500 down and 100 up: 65 % of it down, only 15 % of it up. Down is above the 300 that the contract names at least, and below what it advertises. Others used 82.6 Mb/s of it up meanwhile: that way nothing can be said about the plan.',
    );
    expect(heldOf(250, 14.8, {})).toBe(
      'The plan is 500 down and 100 up: 50 % of it down, only 15 % of it up. Others used 180 Mb/s of it down and 82.6 Mb/s of it up meanwhile: nothing can be said about the plan.',
    );
  });

  it('is not said where the run reached the plan beside them', () => {
    expect(heldOf(498, 99.6, { downBps: 30e6 })).toBe('The plan is 500 down and 100 up: as paid for both ways.');
  });
});

describe('a figure above what the named link can carry', () => {
  const link = { medium: 'wired', negotiatedBps: 100e6, mtuBytes: 1500 } as const;

  it('says that the answer is wrong: no ceiling is taken from it', () => {
    const report = measured(480e6, 97e6, { link });
    expect(report.fitness.map(({ code }) => code)).toContain('link-doubtful');
    expect(report.down.yardstick).toMatchObject({ source: 'plan', rateBps: 500e6 });
    expect(report.verdict).toBe('full');
  });

  it('leaves a run inside the office without a yardstick, and says why', () => {
    const conditions = { ...OVER_GIGABIT, reach: 'local', plan: null, link } as const;
    const report = measured(480e6, 480e6, conditions);
    expect(report.verdict).toBe('no verdict');
    expect(sentenceOf(report, conditions).held).toContain('the description is wrong');
  });

  it('is not raised by what a cable of 100 Mb/s really shows', () => {
    expect(measured(94.9e6, 94.9e6, { link }).fitness.map(({ code }) => code)).not.toContain('link-doubtful');
  });
});

describe('by a hair', () => {
  const HELD = { yardstickBps: 500e6, planBps: 500e6, fullFrom: 0.9 };
  const word = (mbps: number) => verdictOf({ steadyBps: mbps * 1e6, intervalBps: null }, HELD, null);

  it('the words at a limit are edge words within 1 % of it, on both sides', () => {
    expect(word(250)).toMatchObject({ word: 'thin', edgeOf: 'starved' });
    expect(word(249)).toMatchObject({ word: 'starved', edgeOf: 'thin' });
    expect(word(251)).toMatchObject({ word: 'thin', edgeOf: 'starved' });
    expect(word(260)).toMatchObject({ word: 'thin', edgeOf: null });
    expect(word(452)).toMatchObject({ word: 'full', edgeOf: 'thin' });
  });

  it('and wherever the interval straddles it', () => {
    const wide = { steadyBps: 300e6, intervalBps: { low: 240e6, high: 360e6 } };
    expect(verdictOf(wide, HELD, null)).toMatchObject({ word: 'thin', edgeOf: 'starved' });
  });
});

describe('the least that the contract names', () => {
  const contract = plan(500e6, 100e6, { leastDownBps: 300e6, leastUpBps: 60e6 });
  const leastOf = (down: number, up = 97e6) => {
    const conditions = { ...OVER_GIGABIT, plan: contract };
    const report = measured(down, up, conditions);
    return { down: report.down.least, held: sentenceOf(report, conditions).held };
  };

  it('is what every internet run is held against too: above the advertised, between, below', () => {
    expect(leastOf(480e6).down).toMatchObject({ word: 'above', leastBps: 300e6 });
    expect(leastOf(380e6).down).toMatchObject({ word: 'between' });
    expect(leastOf(210e6).down).toMatchObject({ word: 'below' });
  });

  it('stands in the sentence where a direction falls short', () => {
    expect(leastOf(210e6).held).toContain('Down is below the 300 that the contract names at least.');
    expect(leastOf(380e6).held).toContain('Down is above the 300 that the contract names at least');
    expect(leastOf(480e6).held).not.toContain('at least');
  });

  it('is nothing where the contract names none, or the run stays inside', () => {
    expect(measured(480e6, 97e6).down.least).toBeNull();
    expect(measured(480e6, 97e6, { reach: 'local', plan: contract }).down.least).toBeNull();
  });
});
