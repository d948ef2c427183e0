import { ceilingOfEthernet } from './ethernet-ceiling';
import { linkKindOf } from '../domain/link';
import { ceilingOfLink } from './link-ceiling';
import { ceilingWords } from '../words/yardstick-words';
import { ceilingOfTunnel } from './tunnel-ceiling';

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
    expect(ceilingWords(ceilingOfEthernet({ ...path, ipVersion: 6 }))).toContain('× 1428/1538');
    expect(ceilingOfEthernet({ ...path, ipVersion: 6 }).payloadBps).toBeLessThan(
      ceilingOfEthernet({ ...path, ipVersion: 4 }).payloadBps,
    );
  });
});

describe('what is wrapped around the payload', () => {
  const path = { lineRateBps: 1e9, mtuBytes: 1500, ipVersion: 4, timestamps: true } as const;

  it('counts a VLAN tag in the frame and PPPoE inside the packet', () => {
    expect(ceilingOfEthernet({ ...path, vlan: true }).payloadBps / 1e6).toBeCloseTo((1000 * 1448) / 1542, 6);
    expect(ceilingOfEthernet({ ...path, pppoe: true }).payloadBps / 1e6).toBeCloseTo((1000 * 1440) / 1538, 6);
  });

  it.each([
    ['wireguard', 4, 1368, 1518],
    ['wireguard', 6, 1368, 1538],
    ['openvpn', 4, 1388, 1530],
    ['ipsec', 4, 1386, 1530],
    ['ipsec-nat', 4, 1378, 1530],
  ] as const)('of %s over IPv%d carries %d of %d bytes', (kind, outerIpVersion, payload, wire) => {
    const tunnel = { kind, carrierBps: 1e9, outerIpVersion, ipVersion: 4, timestamps: true } as const;
    expect(ceilingOfTunnel(tunnel).payloadBps).toBeCloseTo((1e9 * payload) / wire, 3);
  });

  it('leaves Wi-Fi a range, halved when both ends share the air', () => {
    const alone = ceilingOfLink({ medium: 'wifi', band: '5', linkRateBps: 866e6 }, 4)!;
    expect(alone.rangeBps!.low / 1e6).toBeCloseTo(433, 6);
    expect(alone.rangeBps!.high / 1e6).toBeCloseTo(606.2, 6);
    const shared = ceilingOfLink({ medium: 'wifi', band: '5', linkRateBps: 866e6, sharedAir: true }, 4)!;
    expect(shared.rangeBps!.low).toBe(alone.rangeBps!.low / 2);
    expect(shared.payloadBps).toBe(shared.rangeBps!.low);
  });
});

describe('link ceiling', () => {
  it('is unknown where nobody knows the rate', () => {
    expect(ceilingOfLink({ medium: 'unknown' }, 4)).toBeNull();
    expect(ceilingOfLink({ medium: 'wired', negotiatedBps: null, mtuBytes: 1500 }, 4)).toBeNull();
    expect(ceilingOfLink({ medium: 'wifi', band: '5', linkRateBps: null }, 4)).toBeNull();
    expect(ceilingOfLink({ medium: 'tunnel', kind: 'wireguard' }, 4)).toBeNull();
  });

  it('names each kind of link once', () => {
    expect(linkKindOf({ medium: 'wifi', band: '5', linkRateBps: null })).toBe('wifi-5');
    expect(linkKindOf({ medium: 'wifi', band: null, linkRateBps: null })).toBe('wifi');
    expect(linkKindOf({ medium: 'tunnel' })).toBe('tunnel');
  });
});
