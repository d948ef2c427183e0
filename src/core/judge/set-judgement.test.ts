import type { Plan } from '../domain/plan';
import { judgeSet, type SetConditions, type SetMember } from './set-judgement';

const PLAN: Plan = {
  ...{ name: 'Tarnfell Fibre 500/100', downBps: 500e6, upBps: 100e6, leastDownBps: null, leastUpBps: null },
  ...{ basis: 'payload', fullFrom: 0.9 },
};
const OVER_THE_LINE: SetConditions = {
  ...{ reach: 'internet', plan: PLAN, fullFrom: 0.9, voidedBy: null },
  yardstickBps: { down: 500e6, up: 100e6 },
};
const run = (downMbps: number, changes: Partial<SetMember> = {}): SetMember => ({
  ...{ downBps: downMbps * 1e6, upBps: 97e6, addedMs: 18, flags: ['single-run'] },
  ...changes,
});

describe('a set of runs', () => {
  it('is judged by its median, not by its luckiest or unluckiest run', () => {
    const judged = judgeSet([run(486), run(210), run(485)], OVER_THE_LINE);
    expect(judged.down).toMatchObject({ count: 3, median: 485e6, odd: [] });
    const usual = { down: [4e6, 6e6, 5e6, 7e6, 3e6], up: [], added: [] };
    expect(judgeSet([run(486), run(210), run(485)], OVER_THE_LINE, usual).down!.odd).toEqual([1]);
    expect(judged.verdict).toBe('full');
    expect(judged.planAnswer).toMatchObject({ word: 'met', because: [] });
  });

  it('stands on the edge when its runs do not agree on the word', () => {
    const judged = judgeSet([run(455), run(440), run(460)], OVER_THE_LINE);
    expect(judged.verdicts.down).toMatchObject({ word: 'full', edgeOf: 'thin' });
  });

  it('of three runs proves a plan not met without reservation; of two it still says that runs are few', () => {
    expect(judgeSet([run(310), run(305), run(312)], OVER_THE_LINE).planAnswer).toMatchObject({
      word: 'not met',
      because: [],
    });
    expect(judgeSet([run(310), run(305)], OVER_THE_LINE).planAnswer).toMatchObject({
      word: 'not met',
      because: ['single-run'],
    });
  });

  it('cannot tell about the plan when one of its runs had something nearer as its reason', () => {
    const judged = judgeSet([run(310), run(305, { flags: ['over-wifi'] }), run(312)], OVER_THE_LINE);
    expect(judged.planAnswer).toMatchObject({ word: 'cannot tell', because: ['over-wifi'] });
  });

  it('has no figure where none of its runs had one', () => {
    const judged = judgeSet([run(0, { downBps: null, upBps: null, addedMs: null })], OVER_THE_LINE);
    expect(judged).toMatchObject({ down: null, up: null, added: null, verdict: 'no verdict' });
  });
});
