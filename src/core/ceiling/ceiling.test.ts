import { ceilingOfEthernet } from './ethernet-ceiling';
import { linkKindOf } from './link';
import { ceilingOfLink } from './link-ceiling';

describe('Ethernet ceiling', () => {
  it.each([
    [100e6, 1500, true, 94.1],
    [100e6, 1500, false, 94.9],
    [1e9, 1500, true, 941],
    [1e9, 1500, false, 949],
    [2.5e9, 1500, true, 2354],
    [2.5e9, 1500, false, 2373],
    [10e9, 1500, true, 9415],
    [10e9, 9000, true, 9900],
    [10e9, 9000, false, 9914],
  ])('of %d b/s at MTU %d, timestamps %s, over IPv4 is %d Mb/s', (lineRateBps, mtuBytes, timestamps, mbps) => {
    const { payloadBps } = ceilingOfEthernet({ lineRateBps, mtuBytes, ipVersion: 4, timestamps });
    expect(Math.abs(payloadBps / 1e6 - mbps) / mbps).toBeLessThan(0.0006);
  });

  it('is lower over IPv6, whose header is 20 bytes longer', () => {
    const path = { lineRateBps: 1e9, mtuBytes: 1500, timestamps: true } as const;
    expect(ceilingOfEthernet({ ...path, ipVersion: 6 }).payloadBytes).toBe(1428);
    expect(ceilingOfEthernet({ ...path, ipVersion: 6 }).payloadBps).toBeLessThan(
      ceilingOfEthernet({ ...path, ipVersion: 4 }).payloadBps,
    );
  });
});

describe('link ceiling', () => {
  it('is unknown where nobody knows the rate', () => {
    expect(ceilingOfLink({ medium: 'unknown' }, 4)).toBeNull();
    expect(ceilingOfLink({ medium: 'wired', negotiatedBps: null, mtuBytes: 1500 }, 4)).toBeNull();
    expect(ceilingOfLink({ medium: 'wifi', band: '5', linkRateBps: 866e6 }, 4)).toBeNull();
  });

  it('names each kind of link once', () => {
    expect(linkKindOf({ medium: 'wifi', band: '5', linkRateBps: null })).toBe('wifi-5');
    expect(linkKindOf({ medium: 'wifi', band: null, linkRateBps: null })).toBe('wifi');
    expect(linkKindOf({ medium: 'tunnel' })).toBe('tunnel');
  });
});
