import fc from 'fast-check';
import { nextRequestBytes } from './request-size';

const MIB = 1024 * 1024;
const SIZES = { smallest: MIB / 4, largest: 64 * MIB, wantedMs: 2000 };
const nextBytes = (bytes: number, ms: number) => nextRequestBytes(bytes, ms, SIZES);

describe('the size of the next request', () => {
  it('is what takes one to three seconds at the rate of the last one, whatever the line between 2 and 200 Mb/s', () => {
    const ratesMbps = fc.double({ min: 2, max: 200, noNaN: true });
    fc.assert(
      fc.property(ratesMbps, (mbps) => {
        let bytes = MIB;
        for (let request = 0; request < 5; request += 1) bytes = nextBytes(bytes, (bytes * 8) / (mbps * 1000));
        const seconds = (bytes * 8) / (mbps * 1e6);
        expect(seconds).toBeGreaterThanOrEqual(1);
        expect(seconds).toBeLessThanOrEqual(3);
      }),
    );
  });

  it('grows at most eightfold at once, so that one lucky request does not decide', () => {
    expect(nextBytes(MIB, 1)).toBe(8 * MIB);
  });

  it('stays within its bounds, also for times that cannot be', () => {
    expect(nextBytes(MIB, 1e9)).toBe(MIB / 4);
    expect(nextBytes(64 * MIB, 0)).toBe(64 * MIB);
  });
});
