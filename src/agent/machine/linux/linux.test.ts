import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { defaultGateway, readRoutes, routeTo } from './default-route';
import { readArp, readNeighbours } from './linux-neighbours';
import { netLinks } from './net-links';
import { readResolvConf, readResolvectl } from './resolvers';

const ROUTES = `Iface\tDestination\tGateway \tFlags\tRefCnt\tUse\tMetric\tMask\t\tMTU\tWindow\tIRTT
wlan0\t00000000\t0100A8C0\t0003\t0\t0\t600\t00000000\t0\t0\t0
eth0\t00000000\tFE0200C0\t0003\t0\t0\t100\t00000000\t0\t0\t0
eth0\t000200C0\t00000000\t0001\t0\t0\t100\t00FFFFFF\t0\t0\t0
tun0\t000A0AC6\t00000000\t0001\t0\t0\t0\t00FFFFFF\t0\t0\t0
`;

describe('the kernel’s routes', () => {
  const routes = readRoutes(ROUTES);
  it('lead to everywhere by the gateway with the least metric', () => {
    expect(defaultGateway(routes)).toEqual({ address: '192.0.2.254', link: 'eth0' });
  });
  it('lead to an address by the longest mask', () => {
    expect(routeTo(routes, '192.0.2.9')).toMatchObject({ link: 'eth0', gateway: 0 });
    expect(routeTo(routes, '198.10.10.3')).toMatchObject({ link: 'tun0' });
    expect(routeTo(routes, '203.0.113.9')).toMatchObject({ link: 'eth0' });
  });
  it('lead nowhere where there are none, and for what is no address', () => {
    expect(defaultGateway(readRoutes(ROUTES.split('\n')[0]!))).toBeNull();
    expect(routeTo(routes, 'shop.example')).toBeNull();
    expect(routeTo(routes, '192.0.2')).toBeNull();
  });
});

describe('the links of a machine', () => {
  let root: string;
  const link = (name: string, facts: Readonly<Record<string, string>>, driver?: string) => {
    mkdirSync(join(root, name, 'device'), { recursive: true });
    for (const [file, text] of Object.entries(facts)) writeFileSync(join(root, name, file), `${text}\n`);
    if (driver !== undefined) symlinkSync(`../../../bus/pci/drivers/${driver}`, join(root, name, 'device', 'driver'));
  };
  beforeEach(() => (root = mkdtempSync(join(tmpdir(), 'bent-straw-'))));
  afterEach(() => rmSync(root, { recursive: true }));

  it('have rate, duplex, packet size and driver as the kernel tells them', () => {
    link('eth0', { type: '1', operstate: 'up', speed: '1000', duplex: 'full', mtu: '1500' }, 'r8169');
    link('lo', { type: '772', mtu: '65536' });
    expect(netLinks(root, {})).toEqual([
      {
        ...{ name: 'eth0', medium: 'wired', up: true, speedMbps: 1000, duplex: 'full', mtuBytes: 1500 },
        ...{ driver: 'r8169', addresses: [] },
      },
    ]);
  });

  it('have no rate where a cable is out, of a radio and of a tunnel', () => {
    link('eth0', { type: '1', operstate: 'down', speed: '-1', duplex: 'unknown', mtu: '1500' });
    link('wlan0', { type: '1', operstate: 'up', speed: '54', mtu: '1500' });
    mkdirSync(join(root, 'wlan0', 'wireless'));
    link('tun0', { type: '65534', operstate: 'unknown', carrier: '1', speed: '10', tun_flags: '0x1' });
    expect(
      netLinks(root).map(({ name, medium, up, speedMbps, duplex }) => [name, medium, up, speedMbps, duplex]),
    ).toEqual([
      ['eth0', 'wired', false, null, null],
      ['tun0', 'tunnel', true, null, null],
      ['wlan0', 'wifi', true, null, null],
    ]);
  });

  it('are none where the system keeps no such folder', () => {
    expect(netLinks(join(root, 'none'))).toEqual([]);
  });
});

describe('who answers names', () => {
  it('is read from the file of the system', () => {
    expect(
      readResolvConf('# made by hand\nsearch quill.example\nnameserver 192.0.2.1\n nameserver 2001:db8::1\n'),
    ).toEqual(['192.0.2.1', '2001:db8::1']);
  });
  it('is read behind the machine’s own stub, each once', () => {
    const text =
      'Global: 192.0.2.53#quill.example\nLink 2 (eth0): 192.0.2.1 fe80::1%2\nLink 3 (wlan0): 192.0.2.1\nLink 4:\n';
    expect(readResolvectl(text)).toEqual(['192.0.2.53', '192.0.2.1', 'fe80::1']);
  });
});

describe('who else is here', () => {
  it('is whoever answered with a hardware address', () => {
    const json = JSON.stringify([
      { dst: '192.0.2.1', dev: 'eth0', lladdr: '02:00:5E:10:00:01', state: ['REACHABLE'] },
      { dst: 'fe80::1', dev: 'eth0', lladdr: '02:00:5e:10:00:01', router: null, state: ['STALE'] },
      { dst: '192.0.2.8', dev: 'eth0', state: ['FAILED'] },
      { dst: '192.0.2.9', dev: 'eth0', lladdr: '02:00:5e:10:00:09', state: ['FAILED'] },
    ]);
    expect(readNeighbours(json).map(({ address }) => address)).toEqual(['192.0.2.1', 'fe80::1']);
    expect(readNeighbours(json)[0]!.mac).toBe('02:00:5e:10:00:01');
  });
  it('is read from the kernel’s own table where there is no tool', () => {
    const text = `IP address       HW type     Flags       HW address            Mask     Device
192.0.2.1        0x1         0x2         02:00:5e:10:00:01     *        eth0
192.0.2.8        0x1         0x0         00:00:00:00:00:00     *        eth0
`;
    expect(readArp(text)).toEqual([{ address: '192.0.2.1', mac: '02:00:5e:10:00:01', link: 'eth0' }]);
  });
});
