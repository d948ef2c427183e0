import fc from 'fast-check';
import { lookSentence } from '../words/look-words';
import { bandOf, centreOf, channelOf, type AirNetwork } from './air-network';
import { airAdvice, channelLedger, pressureAt } from './channel-ledger';
import { readAirport } from './read-airport';
import { readIwScan } from './read-iw-scan';
import { readNetsh } from './read-netsh';
import { readNmcli } from './read-nmcli';

const SCAN = `BSS 02:00:5e:00:53:a0(on wlan0) -- associated
	last seen: 1234.567s [boottime]
	freq: 2437.0
	beacon interval: 100 TUs
	signal: -58.00 dBm
	SSID: Larkspur
	DS Parameter set: channel 6
	Country: DE	Environment: Indoor/Outdoor
		Channels [1 - 13] @ 20 dBm
	BSS Load:
		 * station count: 9
		 * channel utilisation: 105/255
	HT operation:
		 * primary channel: 6
		 * secondary channel offset: no secondary
BSS 02:00:5e:00:53:a1(on wlan0)
	freq: 5180
	signal: -67.00 dBm
	SSID: K\\xc3\\xbcche \\x20
	HT operation:
		 * secondary channel offset: above
	VHT operation:
		 * channel width: 1 (80 MHz)
		 * center freq segment 1: 42
		 * center freq segment 2: 0
BSS 02:00:5e:00:53:a2(on wlan0)
	freq: 5180.0
	signal: -71.00 dBm
	SSID: \\x00\\x00\\x00
	HT operation:
		 * secondary channel offset: above
BSS 02:00:5e:00:53:a3(on wlan0)
	freq: 5260.0
	signal: -75.00 dBm
	SSID: wide
	VHT operation:
		 * channel width: 1 (80 MHz)
		 * center freq segment 1: 58
		 * center freq segment 2: 50
BSS 02:00:5e:00:53:a4(on wlan0)
	freq: 5955.0
	signal: -60.00 dBm
	SSID: six
BSS 02:00:5e:00:53:a5(on wlan0)
	signal: -60.00 dBm
	SSID: cut short`;

describe('what a radio lists', () => {
  const networks = readIwScan(SCAN);

  it('is read with name, place, width, signal and load; what is cut short is left out', () => {
    expect(networks).toHaveLength(5);
    expect(networks[0]).toEqual({
      ...{
        name: 'Larkspur',
        bssid: '02:00:5e:00:53:a0',
        primaryMhz: 2437,
        centreMhz: 2437,
        widthMhz: 20,
        signalDbm: -58,
      },
      ...{ load: 105 / 255, stations: 9, country: 'DE', own: true },
    });
    expect(networks[1]).toMatchObject({ name: 'Küche  ', centreMhz: 5210, widthMhz: 80, load: null, own: false });
    expect(networks[2]).toMatchObject({ name: null, centreMhz: 5190, widthMhz: 40 });
    expect(networks[3]).toMatchObject({ centreMhz: 5250, widthMhz: 160 });
    expect(networks[4]).toMatchObject({ primaryMhz: 5955, widthMhz: 20 });
  });

  it('never fails, whatever is in it, and of three hundred reads three hundred', () => {
    fc.assert(fc.property(fc.string({ maxLength: 400 }), (text) => void readIwScan(text)));
    fc.assert(
      fc.property(
        fc.string(),
        (name) => void readIwScan(`BSS 02:00:5e:00:53:a0(on x)\n\tfreq: 2412\n\tsignal: -50.0 dBm\n\tSSID: ${name}`),
      ),
    );
    const one = (place: number) =>
      `BSS 02:00:5e:00:${(place >> 8).toString(16).padStart(2, '0')}:${(place & 255).toString(16).padStart(2, '0')}(on wlan0)\n\tfreq: 2412.0\n\tsignal: -50.00 dBm\n\tSSID: n${place}`;
    expect(readIwScan(Array.from({ length: 300 }, (_, place) => one(place)).join('\n'))).toHaveLength(300);
  });

  it('is read from NetworkManager’s list too, with colons in names', () => {
    const text =
      '*:02\\:00\\:5E\\:00\\:53\\:A0:Lark\\:spur:2437 MHz:84:20 MHz\n :02\\:00\\:5E\\:00\\:53\\:A1::5180 MHz:50:80 MHz\nnonsense';
    expect(readNmcli(text)).toMatchObject([
      { name: 'Lark:spur', bssid: '02:00:5e:00:53:a0', signalDbm: -58, own: true, widthMhz: 20 },
      { name: null, primaryMhz: 5180, widthMhz: 80, own: false },
    ]);
  });
});

describe('channels', () => {
  it.each([
    [2412, '2.4', 1],
    [2472, '2.4', 13],
    [2484, '2.4', 14],
    [5180, '5', 36],
    [5825, '5', 165],
    [5955, '6', 1],
    [6975, '6', 205],
  ] as const)('%d MHz is of %s GHz, channel %d', (mhz, band, channel) => {
    expect([bandOf(mhz), channelOf(mhz)]).toEqual([band, channel]);
    expect(centreOf(band, channel)).toBe(mhz);
  });
  it('elsewhere there is none', () => expect([bandOf(900), channelOf(900)]).toEqual([null, null]));
});

const network = (channel: number, change: Partial<AirNetwork> = {}): AirNetwork => {
  const mhz = centreOf(channel <= 14 ? '2.4' : '5', channel);
  return {
    ...{ name: 'n', bssid: `02:00:00:00:00:${channel}`, primaryMhz: mhz, centreMhz: mhz, widthMhz: 20, signalDbm: -60 },
    ...{ load: 0.5, stations: null, country: null, own: false },
    ...change,
  };
};
const at = (channel: number, networks: readonly AirNetwork[]) => pressureAt(networks, centreOf('2.4', channel), 20);

describe('how much of the air a channel shares', () => {
  it('is the load of those on it, as loudly as they are heard', () => {
    expect(at(6, [network(6)])).toBeCloseTo(0.5);
    expect(at(6, [network(6), network(6)])).toBeCloseTo(1);
    expect(at(6, [network(6, { signalDbm: -82 })])).toBeCloseTo(0.5);
    expect(at(6, [network(6, { signalDbm: -88.5 })])).toBeCloseTo(0.25);
    expect(at(6, [network(6, { signalDbm: -97 })])).toBe(0);
    // One that tells nothing is taken to talk a fifth of the time, and never less than its beacons.
    expect(at(6, [network(6, { load: null })])).toBeCloseTo(0.2);
    expect(at(6, [network(6, { load: 0 })])).toBeCloseTo(0.05);
  });

  it('counts one that reaches in by a quarter as a whole, and one that does not reach in not at all', () => {
    expect(at(6, [network(8)])).toBeCloseTo(0.5);
    expect(at(6, [network(9)])).toBeCloseTo(0.5);
    expect(at(6, [network(11)])).toBe(0);
    expect(at(1, [network(11), network(6)])).toBe(0);
  });

  it('is never less with one neighbour more', () => {
    const any = fc.record({ channel: fc.integer({ min: 1, max: 13 }), dbm: fc.integer({ min: -100, max: -30 }) });
    fc.assert(
      fc.property(fc.array(any, { maxLength: 8 }), any, (some, one) => {
        const of = (list: typeof some) => list.map(({ channel, dbm }) => network(channel, { signalDbm: dbm }));
        expect(at(6, of([...some, one]))).toBeGreaterThanOrEqual(at(6, of(some)));
      }),
    );
  });
});

describe('which channel to take', () => {
  const own = network(6, { own: true, bssid: 'own', name: 'Larkspur' });

  it('is the quiet one where that is clearly quieter', () => {
    const networks = [own, network(6), network(7), network(11, { load: 0.3 })];
    expect(airAdvice(networks)).toMatchObject({ kind: 'move', toChannel: 1, pressure: 1, toPressure: 0 });
    expect(lookSentence({ what: 'air', device: 'wlan0', by: 'iw', networks }, null)).toBe(
      '4 networks are heard. Larkspur is on channel 6 (2.4 GHz, 20 MHz wide), where it shares the air with as much as 1.0 neighbours that talk all the time. On channel 1 it would share it with nobody: move it there.',
    );
  });

  it('stays where moving gains little', () => {
    expect(airAdvice([own, network(6, { load: 0.2 })]).kind).toBe('stay');
    expect(airAdvice([own, network(6), network(1), network(11)]).kind).toBe('stay');
  });

  it('does not send anybody where radar has the right of way if another is about as quiet', () => {
    const wide = network(36, { own: true, widthMhz: 80, centreMhz: 5210, bssid: 'own' });
    const loud = network(40, { widthMhz: 80, centreMhz: 5210, load: 0.9 });
    expect(airAdvice([wide, loud])).toMatchObject({ kind: 'move', toChannel: 149, radar: false });
    const alsoLoud = network(149, { widthMhz: 80, centreMhz: 5775, load: 0.9 });
    expect(airAdvice([wide, loud, alsoLoud])).toMatchObject({ kind: 'move', radar: true });
  });

  it('says that nothing is known where none of them is ours', () =>
    expect(airAdvice([network(6)])).toEqual({ kind: 'none' }));

  it('the ledger has each channel once, the quietest of each band first', () => {
    const ledger = channelLedger([own, network(1), network(36)]).filter(({ band }) => band === '2.4');
    expect(ledger.map(({ channel }) => channel)).toEqual([11, 1, 6]);
    expect(ledger[0]).toMatchObject({ networks: 0, strongestDbm: null, load: null, pressure: 0 });
  });
});

const NETSH = `
Interface name : WLAN
There are 3 networks currently visible.

SSID 1 : Larkspur
    Network type            : Infrastructure
    Authentication          : WPA2-Personal
    Encryption              : CCMP
    BSSID 1                 : 02:00:5e:00:53:A0
         Signal             : 84%
         Radio type         : 802.11ax
         Band               : 2.4 GHz
         Channel            : 6
         Bss Load:
             Connected Stations:         9
             Channel Utilization:        105 (41 %)
             Medium Available Capacity:  0 (0 us/s)
         Basic rates (Mbps) : 1 2 5.5 11
         Other rates (Mbps) : 6 9 12
    BSSID 2                 : 02:00:5e:00:53:a1
         Signal             : 66%
         Radio type         : 802.11ax
         Band               : 5 GHz
         Channel            : 36
SSID 2 :
    Netzwerktyp             : Infrastruktur
    BSSID 1                 : 02:00:5e:00:53:a2
         Signal             : 40 %
         Funktyp            : 802.11be
         Band               : 6 GHz
         Kanal              : 5
         Basisraten (MBit/s): 6 12 24
SSID 3 : Nachbar : mit Doppelpunkt
    BSSID 1                 : 02:00:5e:00:53:a3
         Signal             : 20%
         Canal              : 11
    BSSID 2                 : 02:00:5e:00:53:a4
         Signal             : 20%
`;

describe('what Windows and macOS list', () => {
  it('is read from netsh in any language; without a channel there is no network', () => {
    const networks = readNetsh(NETSH, '02:00:5e:00:53:a1');
    expect(
      networks.map(({ name, bssid, primaryMhz, signalDbm, own }) => [name, bssid, primaryMhz, signalDbm, own]),
    ).toEqual([
      ['Larkspur', '02:00:5e:00:53:a0', 2437, -58, false],
      ['Larkspur', '02:00:5e:00:53:a1', 5180, -67, true],
      [null, '02:00:5e:00:53:a2', 5975, -80, false],
      ['Nachbar : mit Doppelpunkt', '02:00:5e:00:53:a3', 2462, -90, false],
    ]);
    expect(networks[0]).toMatchObject({ load: 0.41, stations: 9 });
    expect(networks[1]).toMatchObject({ load: null, stations: null });
  });

  it.each([
    ['36 (5GHz, 80MHz)', 5180, 5210, 80],
    ['100 (5GHz, 160MHz)', 5500, 5570, 160],
    ['153 (5GHz, 40MHz)', 5765, 5755, 40],
    ['6 (2GHz, 20MHz)', 2437, 2437, 20],
    ['37 (6GHz, 80MHz)', 6135, 6145, 80],
    ['44,-1', 5220, 5230, 40],
    ['11', 2462, 2462, 20],
  ])('says where "%s" lies', (channel, primaryMhz, centreMhz, widthMhz) => {
    const of = { _name: 'x', spairport_network_channel: channel, spairport_signal_noise: '-60 dBm / -90 dBm' };
    const interfaces = [{ _name: 'en0', spairport_airport_other_local_wireless_networks: [of] }];
    const json = JSON.stringify({ SPAirPortDataType: [{ spairport_airport_interfaces: interfaces }] });
    expect(readAirport(json)!.networks[0]).toMatchObject({ primaryMhz, centreMhz, widthMhz, own: false });
  });

  it('tells networks apart whose addresses the system keeps to itself, and takes a name that it keeps for none', () => {
    const of = (name: string) => ({
      ...{ _name: name, spairport_network_channel: '6 (2GHz, 20MHz)', spairport_signal_noise: '-60 dBm / -90 dBm' },
    });
    const others = [of('Twin'), of('Twin'), of('<redacted>'), { ...of('deaf'), spairport_signal_noise: '' }];
    const interfaces = [{ _name: 'en0', spairport_airport_other_local_wireless_networks: others }];
    const json = JSON.stringify({ SPAirPortDataType: [{ spairport_airport_interfaces: interfaces }] });
    const { networks } = readAirport(json)!;
    expect(networks.map(({ name }) => name)).toEqual(['Twin', 'Twin', null]);
    expect(new Set(networks.map(({ bssid }) => bssid)).size).toBe(3);
  });

  it('is nothing where it is something else, whatever that is', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        expect(readAirport(text)).toBeNull();
        expect(readNetsh(text, null)).toEqual([]);
      }),
    );
    expect(readAirport('{"SPAirPortDataType": 5}')).toBeNull();
  });
});
