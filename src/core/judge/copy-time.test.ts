import { copyRates, copyTime, throughStore } from './copy-time';

describe('how long a copy takes', () => {
  it('is by the median, and by the slowest tenth where no hours are known to be bad', () => {
    expect(copyTime(100e9, [500e6])!.usualSeconds).toBeCloseTo(1648, 0);
    const rates = [100e6, ...Array.from({ length: 20 }, () => 500e6), ...Array.from({ length: 3 }, () => 100e6)];
    expect(copyTime(100e9, rates)).toMatchObject({
      usualSeconds: expect.closeTo(1648, 0) as number,
      badSeconds: expect.closeTo(8240, 0) as number,
    });
  });

  it('is by the hours that are bad where they are known, though few runs were made in them', () => {
    const evening = { bps: 310e6, elseBps: 486e6 };
    const { ratesBps, badBps } = copyRates(
      [],
      Array.from({ length: 30 }, () => 486e6),
      evening,
    );
    expect(copyTime(100e9, ratesBps, badBps)!.badSeconds).toBeCloseTo((100e9 * 8 * 1.03) / 310e6, 0);
  });

  it('takes one connection where there is one, and its bad hours by the share of the line’s', () => {
    const rates = copyRates([120e6, 118e6, 125e6], [486e6], { bps: 243e6, elseBps: 486e6 });
    expect(rates).toMatchObject({ single: true, ratesBps: [120e6, 118e6, 125e6], badBps: 60e6 });
    expect(copyRates([], [486e6], null)).toMatchObject({ single: false, badBps: null });
  });

  it('is by the store where that gives less than the network, also in a bad hour', () => {
    const rates = copyRates([], [940e6, 930e6], { bps: 400e6, elseBps: 800e6 });
    expect(throughStore(rates, 310e6)).toMatchObject({ ratesBps: [310e6, 310e6], badBps: 310e6 });
    expect(throughStore(rates, 600e6)).toMatchObject({ ratesBps: [600e6, 600e6], badBps: 467.5e6 });
    expect(throughStore(rates, null)).toEqual(rates);
  });

  it('is not known where nothing was measured, never none at all', () => {
    expect(copyTime(100e9, [])).toBeNull();
    expect(copyTime(100e9, [0, 0, 0])).toBeNull();
    expect(copyRates([], [], { bps: 1, elseBps: 2 }).badBps).toBeNull();
  });
});
