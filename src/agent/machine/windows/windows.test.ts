import type { Printed } from '../machine-view';
import { readNetshInterface, readWindows } from './read-windows';
import { windowsView } from './windows-view';

const FACTS = JSON.stringify({
  adapters: [
    {
      ...{ name: 'Ethernet', about: 'Made-up Gigabit Controller', up: true, medium: 14, type: 6, hardware: true },
      ...{ bps: 100e6, full: false, mtu: 1500, driver: '\\SystemRoot\\System32\\drivers\\madeup64.sys', vlan: 0 },
    },
    {
      ...{ name: 'WLAN', about: 'Made-up Wireless', up: true, medium: 9, type: 71, hardware: true },
      ...{ bps: 866.7e6, full: true, mtu: 1500, driver: null, vlan: null },
    },
    {
      name: 'Office',
      about: 'WireGuard Tunnel',
      up: true,
      medium: 0,
      type: 53,
      hardware: false,
      bps: 100e9,
      mtu: 1420,
    },
    // A port that is out tells the largest number there is.
    {
      name: 'Ethernet 2',
      about: 'Made-up Dongle',
      up: false,
      medium: 14,
      type: 6,
      hardware: true,
      bps: 1.8e19,
      full: true,
    },
    { name: 'vSwitch', about: 'Virtual Ethernet', up: true, medium: 0, type: 6, hardware: false, bps: 10e9, mtu: 1500 },
  ],
  routes: [
    { link: 'WLAN', gateway: '192.0.2.129', metric: 55 },
    { link: 'Ethernet', gateway: '192.0.2.1', metric: 25 },
    { link: 'Office', gateway: '0.0.0.0', metric: 5 },
  ],
  resolvers: [
    { link: 'WLAN', addresses: ['192.0.2.53'] },
    { link: 'Ethernet', addresses: ['192.0.2.1', '192.0.2.53', 'fec0:0:0:ffff::1'] },
    { link: 'Ethernet 2', addresses: ['198.51.100.53'] },
    { link: 'vSwitch', addresses: null },
  ],
  neighbours: [
    { address: '192.0.2.1', mac: '02-00-5E-10-00-01', link: 'Ethernet' },
    { address: '224.0.0.22', mac: '01-00-5E-00-00-16', link: 'Ethernet' },
    { address: '192.0.2.77', mac: '00-00-00-00-00-00', link: 'Ethernet' },
    { address: '192.0.2.78', mac: null, link: 'Ethernet' },
  ],
  system: 'Microsoft Windows 11 Pro',
});

const ENGLISH = `
There is 1 interface on the system:

    Name                   : WLAN
    Description            : Made-up Wireless
    GUID                   : 11111111-2222-3333-4444-555555555555
    Physical address       : 02:00:5e:10:00:20
    Interface type         : Primary
    State                  : connected
    SSID                   : Larkspur
    AP BSSID               : 02:00:5E:00:53:a1
    Band                   : 5 GHz
    Channel                : 36
    Connected Akm-cipher   : [ akm = 00-0f-ac:02, cipher = 00-0f-ac:04 ]
    Network type           : Infrastructure
    Radio type             : 802.11ax
    Authentication         : WPA2-Personal
    Cipher                 : CCMP
    Connection mode        : Profile
    Receive rate (Mbps)    : 1200.5
    Transmit rate (Mbps)   : 864.6
    Signal                 : 88%
    Rssi                   : -54
    Profile                : Larkspur
`;
const GERMAN = `
Es ist 1 Schnittstelle auf dem System vorhanden:

    Name                   : WLAN
    Beschreibung           : Made-up Wireless
    GUID                   : 11111111-2222-3333-4444-555555555555
    Physische Adresse      : 02:00:5e:10:00:20
    Status                 : Verbunden
    SSID                   : Larkspur
    BSSID                  : 02:00:5e:00:53:a0
    Netzwerktyp            : Infrastruktur
    Funktyp                : 802.11n
    Authentifizierung      : WPA2-Personal
    Verschlüsselung        : CCMP
    Verbindungsmodus       : Automatisch verbinden
    Kanal                  : 6
    Empfangsrate (MBit/s)  : 144.4
    Übertragungsrate (MBit/s) : 130
    Signal                 : 80 %
    Profil                 : Larkspur
`;

describe('a machine with Windows', () => {
  const asked: string[] = [];
  const answers = (more: Readonly<Record<string, string>> = {}): Printed => {
    return (command, args) => {
      const words = [command, ...args].join(' ');
      asked.push(words);
      const [key] = Object.keys(more).filter((each) => words.includes(each));
      if (key !== undefined) return Promise.resolve(more[key]!);
      return Promise.resolve(words.includes('Get-NetAdapter') ? FACTS : null);
    };
  };
  beforeEach(() => asked.splice(0));

  it('tells its links: what they are, at what they came up, and nothing of a port that is out', async () => {
    const links = await windowsView(answers()).links();
    expect(links.map(({ name, medium, up, speedMbps, duplex }) => [name, medium, up, speedMbps, duplex])).toEqual([
      ['Ethernet', 'wired', true, 100, 'half'],
      ['Ethernet 2', 'wired', false, null, null],
      ['Office', 'tunnel', true, null, null],
      ['vSwitch', 'other', true, null, null],
      ['WLAN', 'wifi', true, null, null],
    ]);
    expect(links[0]).toMatchObject({ driver: 'madeup64', mtuBytes: 1500 });
  });

  it('tells its gateway, whom it asks for names, and who else is here, by one start of the shell', async () => {
    const view = windowsView(answers());
    expect(await view.gateway()).toEqual({ address: '192.0.2.1', link: 'Ethernet' });
    expect(await view.resolvers()).toEqual(['192.0.2.1', '192.0.2.53']);
    expect(await view.neighbours()).toEqual([{ address: '192.0.2.1', mac: '02:00:5e:10:00:01', link: 'Ethernet' }]);
    expect(await view.systemName()).toBe('Microsoft Windows 11 Pro');
    expect(asked).toHaveLength(1);
  });

  it('tells how a run goes: by cable, by Wi-Fi with its access point, or through a tunnel', async () => {
    const towards = (link: string, wlan = '') =>
      windowsView(answers({ 'Find-NetRoute': `${link}\r\n`, 'wlan show interfaces': wlan })).linkTowards('192.0.2.9');
    expect(await towards('Ethernet')).toEqual({ medium: 'wired', negotiatedBps: 100e6, mtuBytes: 1500 });
    expect(await towards('Office')).toEqual({ medium: 'tunnel', kind: 'wireguard' });
    expect(await towards('WLAN', ENGLISH)).toEqual({
      ...{ medium: 'wifi', band: '5', linkRateBps: 864.6e6, accessPoint: '02:00:5e:00:53:a1' },
      ...{ channel: 36, signalDbm: -54 },
    });
    expect(await towards('WLAN')).toEqual({ medium: 'wifi', band: null, linkRateBps: null });
    expect(await towards('gone')).toBeNull();
  });

  it('reads the connection of a radio in other languages, by what is written the same', () => {
    expect(readNetshInterface(GERMAN, 'WLAN')).toEqual({
      ...{ band: '2.4', linkRateBps: 130e6, accessPoint: '02:00:5e:00:53:a0', channel: 6, signalDbm: -60 },
    });
  });

  it('gives nothing to a shell that is no address', async () => {
    expect(await windowsView(answers()).linkTowards("192.0.2.9'; Stop-Computer '")).toBeNull();
    expect(asked).toEqual([]);
  });

  it.each([
    ['Antwort von 192.0.2.1: Bytes=32 Zeit=4ms TTL=64\r\nAntwort von 192.0.2.1: Bytes=32 Zeit<1ms TTL=64', 1],
    ['Reply from 192.0.2.1: bytes=32 time=7ms TTL=64', 7],
    ['Request timed out.', null],
  ])('reads the round trip of its ping in any language: %s', async (text, ms) => {
    expect(await windowsView(answers({ 'ping -n': text })).roundTripMs('192.0.2.1')).toBe(ms);
  });

  it('tells nothing rather than something wrong where the shell prints something else', async () => {
    expect(readWindows('Get-NetAdapter : Access denied')).toBeNull();
    const view = windowsView(() => Promise.resolve(null));
    expect([await view.links(), await view.gateway(), await view.resolvers()]).toEqual([[], null, []]);
    expect(await view.air()).toEqual({ trouble: 'no-radio' });
  });

  it('says which radio lists nothing, and reads what it lists', async () => {
    expect(await windowsView(answers()).air()).toEqual({ trouble: 'no-scan', device: 'WLAN' });
    const listed =
      'SSID 1 : Larkspur\r\n    BSSID 1 : 02:00:5e:00:53:a0\r\n         Signal : 80%\r\n         Kanal : 6\r\n';
    const found = await windowsView(answers({ 'show networks': listed, 'show interfaces': GERMAN })).air();
    expect(found).toMatchObject({ what: 'air', by: 'netsh', networks: [{ name: 'Larkspur', own: true }] });
  });
});
