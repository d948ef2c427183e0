import type { Printed } from '../machine-view';
import { macosView } from './macos-view';

const IFCONFIG = `lo0: flags=8049<UP,LOOPBACK,RUNNING,MULTICAST> mtu 16384
	inet 127.0.0.1 netmask 0xff000000
en0: flags=8863<UP,BROADCAST,SMART,RUNNING,SIMPLEX,MULTICAST> mtu 1500
	ether 02:00:5e:10:00:21
	inet6 fe80::1c%en0 prefixlen 64 secured scopeid 0xb
	inet 192.0.2.30 netmask 0xffffff00 broadcast 192.0.2.255
	media: autoselect
	status: active
en5: flags=8863<UP,BROADCAST,SMART,RUNNING,SIMPLEX,MULTICAST> mtu 9000
	ether 02:00:5e:10:00:22
	inet 192.0.2.31 netmask 0xffffff00 broadcast 192.0.2.255
	media: autoselect (2500Base-T <full-duplex,flow-control>)
	status: active
en7: flags=8863<UP,BROADCAST,SMART,RUNNING,SIMPLEX,MULTICAST> mtu 1500
	media: autoselect (none)
	status: inactive
awdl0: flags=8843<UP,BROADCAST,RUNNING,SIMPLEX,MULTICAST> mtu 1500
	inet6 fe80::2%awdl0 prefixlen 64 scopeid 0xd
utun3: flags=8051<UP,POINTOPOINT,RUNNING,MULTICAST> mtu 1420
	inet 10.9.0.3 --> 10.9.0.3 netmask 0xffffffff
`;
const PORTS = `
Hardware Port: Wi-Fi
Device: en0
Ethernet Address: 02:00:5e:10:00:21

Hardware Port: Thunderbolt Ethernet Slot 1
Device: en5
Ethernet Address: 02:00:5e:10:00:22

Hardware Port: USB 10/100/1000 LAN
Device: en7
Ethernet Address: N/A
`;
const DNS = `DNS configuration

resolver #1
  nameserver[0] : 192.0.2.1
  nameserver[1] : 2001:db8::53
  if_index : 11 (en0)

DNS configuration (for scoped queries)

resolver #1
  nameserver[0] : 198.51.100.53
`;
const AIRPORT = JSON.stringify({
  SPAirPortDataType: [
    {
      spairport_airport_interfaces: [
        { _name: 'awdl0' },
        {
          _name: 'en0',
          spairport_current_network_information: {
            ...{ _name: 'Larkspur', spairport_network_channel: '36 (5GHz, 80MHz)', spairport_network_rate: 864 },
            ...{ spairport_signal_noise: '-52 dBm / -92 dBm', spairport_network_country_code: 'DE' },
          },
          spairport_airport_other_local_wireless_networks: [],
        },
      ],
    },
  ],
});
const route = (link: string) =>
  `   route to: default\ndestination: default\n    gateway: 192.0.2.1\n  interface: ${link}\n`;

describe('a machine with macOS', () => {
  const prints =
    (more: Readonly<Record<string, string>> = {}): Printed =>
    (command) => {
      const known: Record<string, string> = {
        ...{ ifconfig: IFCONFIG, networksetup: PORTS, scutil: DNS, system_profiler: AIRPORT, route: route('en5') },
        arp: '? (192.0.2.1) at 2:0:5e:10:0:1 on en0 ifscope [ethernet]\n? (224.0.0.251) at 1:0:5e:0:0:fb on en0 [ethernet]\n? (192.0.2.9) at (incomplete) on en0 ifscope [ethernet]\n',
        sw_vers: '15.2\n',
        ...more,
      };
      return Promise.resolve(known[command] ?? null);
    };

  it('tells its links: what they are and at what they came up; what nothing goes by is left out', async () => {
    const links = await macosView(prints()).links();
    expect(
      links.map(({ name, medium, up, speedMbps, duplex, mtuBytes }) => [name, medium, up, speedMbps, duplex, mtuBytes]),
    ).toEqual([
      ['en0', 'wifi', true, null, null, 1500],
      ['en5', 'wired', true, 2500, 'full', 9000],
      ['en7', 'wired', false, null, null, 1500],
      ['utun3', 'tunnel', true, null, null, 1420],
    ]);
    expect(links[0]!.addresses).toEqual(['fe80::1c', '192.0.2.30']);
  });

  it('tells its gateway, whom it asks for names, who else is here, and its version', async () => {
    const view = macosView(prints());
    expect(await view.gateway()).toEqual({ address: '192.0.2.1', link: 'en5' });
    expect(await view.resolvers()).toEqual(['192.0.2.1', '2001:db8::53']);
    expect(await view.neighbours()).toEqual([{ address: '192.0.2.1', mac: '02:00:5e:10:00:01', link: 'en0' }]);
    expect(await view.systemName()).toBe('macOS 15.2');
  });

  it('tells how a run goes: by cable, by Wi-Fi with what is known of the network, or through a tunnel', async () => {
    const towards = (link: string, more = {}) =>
      macosView(prints({ route: route(link), ...more })).linkTowards('192.0.2.9');
    expect(await towards('en5')).toEqual({ medium: 'wired', negotiatedBps: 2500e6, mtuBytes: 9000 });
    expect(await towards('utun3')).toEqual({ medium: 'tunnel' });
    expect(await towards('en0')).toEqual({
      ...{ medium: 'wifi', band: '5', linkRateBps: 864e6, channel: 36, signalDbm: -52, widthMHz: 80 },
    });
    expect(await towards('en0', { system_profiler: 'not json' })).toEqual({
      medium: 'wifi',
      band: null,
      linkRateBps: null,
    });
    expect(await towards('gone')).toBeNull();
  });

  it('tells the round trip of its ping, and what its radio hears', async () => {
    const ping =
      '64 bytes from 192.0.2.1: icmp_seq=0 ttl=64 time=2.412 ms\n64 bytes from 192.0.2.1: icmp_seq=1 ttl=64 time=1.904 ms\n';
    expect(await macosView(prints({ ping })).roundTripMs('192.0.2.1')).toBe(1.904);
    expect(await macosView(prints()).air()).toMatchObject({
      device: 'en0',
      networks: [{ name: 'Larkspur', own: true }],
    });
    expect(await macosView(prints({ system_profiler: '{}' })).air()).toEqual({ trouble: 'no-radio' });
  });

  it('tells nothing where no program prints anything', async () => {
    const view = macosView(() => Promise.resolve(null));
    expect([await view.links(), await view.gateway(), await view.resolvers(), await view.neighbours()]).toEqual([
      [],
      null,
      [],
      [],
    ]);
    expect(await view.linkTowards('192.0.2.9')).toBeNull();
  });
});
