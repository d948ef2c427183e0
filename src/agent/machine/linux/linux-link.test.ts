import { linkOfInterface, type InterfaceFacts } from './linux-link';

const CABLE: InterfaceFacts = {
  name: 'eth0',
  wireless: false,
  tunnel: null,
  speedMbps: 100,
  mtuBytes: 1500,
  vlan: false,
  iwLink: null,
  iwInfo: null,
};
const IW_LINK = `Connected to 02:00:5e:10:00:01 (on wlan0)
	SSID: bindery
	freq: 5180.0
	RX: 1200 bytes (9 packets)
	signal: -57 dBm
	tx bitrate: 866.7 MBit/s VHT-MCS 9 80MHz short GI VHT-NSS 2
`;
const IW_INFO = `Interface wlan0
	type managed
	channel 36 (5180 MHz), width: 80 MHz, center1: 5210 MHz
`;

describe('the link of an interface', () => {
  it('is a cable with its negotiated rate, MTU and tag', () => {
    expect(linkOfInterface(CABLE)).toEqual({ medium: 'wired', negotiatedBps: 100e6, mtuBytes: 1500 });
    expect(linkOfInterface({ ...CABLE, vlan: true, mtuBytes: 9000 })).toMatchObject({ vlan: true, mtuBytes: 9000 });
  });

  it('has no rate where the port tells none', () => {
    expect(linkOfInterface({ ...CABLE, speedMbps: null })).toMatchObject({ negotiatedBps: null });
    expect(linkOfInterface({ ...CABLE, speedMbps: -1 })).toMatchObject({ negotiatedBps: null });
  });

  it('is Wi-Fi as the system sees it', () => {
    expect(linkOfInterface({ ...CABLE, name: 'wlan0', wireless: true, iwLink: IW_LINK, iwInfo: IW_INFO })).toEqual({
      medium: 'wifi',
      band: '5',
      linkRateBps: 866.7e6,
      signalDbm: -57,
      channel: 36,
      widthMHz: 80,
      accessPoint: '02:00:5e:10:00:01',
    });
    expect(linkOfInterface({ ...CABLE, wireless: true })).toEqual({ medium: 'wifi', band: null, linkRateBps: null });
  });

  it('is a tunnel for a tunnel’s device, and not known for loopback', () => {
    expect(linkOfInterface({ ...CABLE, tunnel: 'tun' })).toEqual({ medium: 'tunnel' });
    expect(linkOfInterface({ ...CABLE, tunnel: 'wireguard' })).toEqual({ medium: 'tunnel', kind: 'wireguard' });
    expect(linkOfInterface({ ...CABLE, name: 'lo' })).toEqual({ medium: 'unknown' });
  });
});
