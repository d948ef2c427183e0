import type { BoardCell } from './board-cells';
import { keepsCell, keepsColumn, keepsRow } from './board-filter';

const HOUR_MS = 3600_000;
const NOW_MS = 1_000 * HOUR_MS;
const cell = (verdict: BoardCell['verdict'], agoHours: number): BoardCell => ({
  ...{ runId: 'r', downBps: 1, upBps: 1, yardstickDownBps: 1, yardstickUpBps: 1, addedMs: null, rating: null },
  ...{ verdict, linkBelowPlan: false, startedAtMs: NOW_MS - agoHours * HOUR_MS, count: 1 },
  ...{ spreadDownBps: null, spreadUpBps: null, rangeDownBps: null, rangeUpBps: null },
});

describe('what the board is narrowed to', () => {
  it('by segment are the columns whose runs cross it', () => {
    const reaches = (segment: 'hop' | 'line' | 'tunnel' | 'far-end') =>
      (['local', 'internet', 'tunnel'] as const).filter((reach) =>
        keepsColumn({ segment }, { linkKind: 'wired', reach }),
      );
    expect(reaches('hop')).toEqual(['local', 'internet', 'tunnel']);
    expect(reaches('line')).toEqual(['internet', 'tunnel']);
    expect(reaches('tunnel')).toEqual(['tunnel']);
    expect(reaches('far-end')).toEqual(['internet']);
  });

  it('by link and reach are the columns of both', () => {
    expect(keepsColumn({ linkKind: 'wired', reach: 'local' }, { linkKind: 'wired', reach: 'local' })).toBe(true);
    expect(keepsColumn({ linkKind: 'wired', reach: 'local' }, { linkKind: 'wired', reach: 'internet' })).toBe(false);
    expect(keepsColumn({ linkKind: 'wifi-5' }, { linkKind: 'wired', reach: 'local' })).toBe(false);
  });

  it('by verdict and age are cells with a result that fits', () => {
    expect(keepsCell({}, null, NOW_MS)).toBe(true);
    expect(keepsCell({ verdict: 'full' }, null, NOW_MS)).toBe(false);
    expect(keepsCell({ verdict: 'full' }, cell('full', 1), NOW_MS)).toBe(true);
    expect(keepsCell({ verdict: 'starved' }, cell('full', 1), NOW_MS)).toBe(false);
    expect(keepsCell({ age: 'day' }, cell('full', 24), NOW_MS)).toBe(true);
    expect(keepsCell({ age: 'day' }, cell('full', 25), NOW_MS)).toBe(false);
    expect(keepsCell({ age: 'week' }, cell('full', 25), NOW_MS)).toBe(true);
    expect(keepsCell({ age: 'older' }, cell('full', 24 * 8), NOW_MS)).toBe(true);
  });

  it('by name are rows whose device or spot holds the text, whatever its case', () => {
    const row = { deviceName: 'Press desk', spotName: 'Workshop' };
    expect(keepsRow({ text: ' PRESS ' }, row)).toBe(true);
    expect(keepsRow({ text: 'work' }, row)).toBe(true);
    expect(keepsRow({ text: 'shop agent' }, row)).toBe(false);
    expect(keepsRow({ spot: 'Workshop' }, row)).toBe(true);
    expect(keepsRow({ spot: 'Attic' }, row)).toBe(false);
  });
});
