import { readMachineTraffic } from './machine-traffic';
import { otherTraffic } from './other-traffic';

const PROC = `Inter-|   Receive                                                |  Transmit
 face |bytes    packets errs drop fifo frame compressed multicast|bytes    packets errs drop fifo colls carrier compressed
    lo: 999999     100    0    0    0     0          0         0   999999     100    0    0    0     0       0          0
  eth0: 1000000    900    0    0    0     0          0         0   200000     800    0    0    0     0       0          0
 wlan0:5000         9    0    0    0     0          0         0     3000       8    0    0    0     0       0          0
`;

describe('the traffic of a machine', () => {
  it('is the sum of its interfaces without loopback', () => {
    expect(readMachineTraffic(PROC)).toEqual({ downBytes: 1_005_000, upBytes: 203_000 });
    expect(readMachineTraffic('')).toEqual({ downBytes: 0, upBytes: 0 });
  });

  const before = { traffic: { downBytes: 1000, upBytes: 500 }, atMs: 2000 };

  it('less what the run moved, with its headers, is that of other programs', () => {
    const after = { downBytes: 1000 + 106e6 + 30e6, upBytes: 500 + 3e6 };
    expect(otherTraffic(before, { downBytes: 100e6, upBytes: 0 }, after, 12_000)).toEqual({
      downBytes: 30e6,
      upBytes: 0,
      overMs: 10_000,
    });
  });

  it('is never below nothing, and unknown where it cannot be read', () => {
    const after = { downBytes: 1000, upBytes: 500 };
    expect(otherTraffic(before, { downBytes: 100e6, upBytes: 10e6 }, after, 12_000)).toMatchObject({
      downBytes: 0,
      upBytes: 0,
    });
    expect(otherTraffic(before, after, null, 12_000)).toBeNull();
    expect(otherTraffic(null, after, after, 12_000)).toBeNull();
  });
});
