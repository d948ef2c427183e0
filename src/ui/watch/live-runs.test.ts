import type { ShownRun } from '@/services';
import { rateAt, withLive, withRates, type LiveRun } from './live-runs';

const heard = (fromMs: number, downBps: (number | null)[], upBps = downBps.map(() => null)): LiveRun => ({
  ...{ runId: 'run', deviceId: 'desk', startedAtMs: 10_000, fromMs, downBps, upBps },
});

describe('a run that goes on', () => {
  it('is known second by second, the last ones as they were told last', () => {
    const first = withRates(new Map(), heard(0, [null, 50, 90]));
    const later = withRates(first, heard(2000, [95, 96], [null, 4] as never));
    expect(later.get('run')).toMatchObject({ fromMs: 0, downBps: [null, 50, 95, 96], upBps: [null, null, null, 4] });
  });

  it('has nothing where it was not heard of: whoever looks late, or missed some of it', () => {
    const late = withRates(new Map(), heard(3000, [90]));
    expect(late.get('run')!.downBps).toEqual([null, null, null, 90]);
    expect(withRates(late, heard(6000, [91])).get('run')!.downBps).toEqual([null, null, null, 90, null, null, 91]);
  });

  it('is shown until it is read, and then once', () => {
    const live = withRates(new Map(), heard(0, [80]));
    const ended: ShownRun = { id: 'run', deviceId: 'desk', atMs: 10_000, downBps: 81, upBps: 9, seconds: null };
    expect(withLive([], live)).toMatchObject([{ id: 'run', atMs: 10_000, seconds: { downBps: [80] } }]);
    expect(withLive([ended], live)).toEqual([ended]);
  });

  it('says what it moved at a moment, and nothing of a moment before or after', () => {
    const runs = withLive([], withRates(new Map(), heard(0, [null, 50, 90])));
    expect(rateAt(runs, 12_400)).toEqual({ downBps: 90, upBps: null });
    expect(rateAt(runs, 10_400)).toBeNull();
    expect(rateAt(runs, 9000)).toBeNull();
    expect(rateAt(runs, 13_100)).toBeNull();
  });
});
