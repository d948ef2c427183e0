import type { BoardCell } from '@/services';
import { drawnCell } from './drawn-cell';

const cell: BoardCell = {
  ...{ runId: 'r', downBps: 250e6, upBps: 100e6, yardstickDownBps: 500e6, yardstickUpBps: 100e6, addedMs: 42 },
  ...{ rating: 'soft', verdict: 'thin', linkBelowPlan: false, startedAtMs: 0, count: 1 },
  ...{ spreadDownBps: null, spreadUpBps: null, rangeDownBps: null, rangeUpBps: null },
};
const drawn = (changes: Partial<BoardCell> = {}) => drawnCell({ ...cell, ...changes }, 3 * 3600_000);

describe('a cell as it is drawn', () => {
  it('has straws as long as their share of the way to the notch', () => {
    const { downLength, upLength } = drawn();
    expect(upLength / downLength).toBeCloseTo(2, 1);
    expect(drawn({ upBps: 1e9 }).upLength).toBeLessThanOrEqual(100);
    expect(drawn({ upBps: 1000 }).upLength).toBeGreaterThan(0);
  });

  it('says that a rate is unknown, never 0, and draws no straw for it', () => {
    expect(drawn({ downBps: null })).toMatchObject({ down: '–', downLength: 0 });
    expect(drawn({ addedMs: null, rating: null })).not.toHaveProperty('added');
  });

  it('is hollow where there is nothing to hold it against', () => {
    expect(drawn()).not.toHaveProperty('hollow');
    expect(drawn({ yardstickUpBps: null }).hollow).toBe('hollow-up');
    expect(drawn({ yardstickDownBps: null, yardstickUpBps: null }).hollow).toBe('hollow-down hollow-up');
  });

  it('tells of a set how many runs it has and how far they lie apart', () => {
    expect(drawn()).not.toHaveProperty('set');
    expect(drawn({ count: 3, spreadDownBps: 12e6, spreadUpBps: 0.5e6 })).toMatchObject({
      set: [3, '12.0', '0.50'],
      age: '3 h',
    });
  });
});
