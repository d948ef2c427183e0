import { rateSecondsOf } from './rate-seconds';

const bins = (binMs: number, fromMs: number, bps: readonly number[]) => ({
  binMs,
  atMs: bps.map((_, index) => fromMs + index * binMs),
  bps,
});

describe('rateSecondsOf', () => {
  it('gives the mean of each second, and nothing for seconds without', () => {
    const down = bins(500, 1000, [10e6, 30e6, 40e6, 40e6]);
    const seconds = rateSecondsOf({ durationMs: 5200, down, up: null });
    expect(seconds).toEqual({
      fromMs: 0,
      downBps: [null, 20e6, 40e6, null, null],
      upBps: [null, null, null, null, null],
    });
  });

  it('shares a bin that lies over the edge of a second by its time', () => {
    // 600 ms each, as the strip of a soak has them.
    const down = bins(600, 0, [10e6, 20e6, 30e6, 40e6, 50e6]);
    // [0, 1000): 600 ms of 10 and 400 of 20; [1000, 2000): 200 of 20, 600 of 30, 200 of 40; [2000, 3000): 400 of 40, 600 of 50.
    expect(rateSecondsOf({ durationMs: 3000, down, up: null }).downBps).toEqual([14e6, 30e6, 46e6]);
  });

  it('keeps the bytes: seconds that are wholly known add up to what was moved', () => {
    const up = bins(
      100,
      0,
      Array.from({ length: 60 }, (_, index) => 1e6 * (1 + (index % 7))),
    );
    const { upBps } = rateSecondsOf({ durationMs: 6000, down: null, up });
    const sum = upBps.reduce<number>((all, bps) => all + bps!, 0);
    expect(sum).toBeCloseTo(up.bps.reduce((all, bps) => all + bps, 0) / 10, -2);
  });

  it('tells no second of which less than half is known, and begins where it is asked', () => {
    const down = bins(100, 700, [5e6, 5e6, 5e6, 5e6, 5e6, 5e6, 5e6, 5e6]);
    // 700 to 1500: 300 ms of the first second, half of the second.
    expect(rateSecondsOf({ durationMs: 2000, down, up: null }).downBps).toEqual([null, 5e6]);
    expect(rateSecondsOf({ durationMs: 2000, down, up: null }, 1000)).toEqual({
      ...{ fromMs: 1000, downBps: [5e6], upBps: [null] },
    });
    expect(rateSecondsOf({ durationMs: 900, down, up: null }, 1000).downBps).toEqual([]);
  });
});
