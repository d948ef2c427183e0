import { bandNamed, centreOf, type AirBand, type AirNetwork } from './air-network';

/** A network in the report; which members there are depends on the version. */
interface Reported {
  readonly _name?: unknown;
  readonly spairport_network_bssid?: unknown;
  readonly spairport_network_channel?: unknown;
  readonly spairport_network_country_code?: unknown;
  readonly spairport_signal_noise?: unknown;
}

interface Interface {
  readonly _name?: unknown;
  readonly spairport_current_network_information?: Reported;
  readonly spairport_airport_other_local_wireless_networks?: readonly Reported[];
}

const textOf = (value: unknown) => (typeof value === 'string' || typeof value === 'number' ? String(value) : '');

/** "36 (5GHz, 80MHz)"; before: "36,+1", or the number alone. */
function channelOf(
  text: string,
): { readonly band: AirBand; readonly channel: number; readonly widthMhz: number } | null {
  const channel = Number.parseInt(text, 10);
  if (!(channel > 0)) return null;
  const band = bandNamed(/([256])(?:\.4)? ?GHz/i.exec(text)?.[1], channel);
  return { band, channel, widthMhz: Number(/(\d+) ?MHz/i.exec(text)?.[1] ?? (text.includes(',') ? 40 : 20)) };
}

/** Channels of 40 MHz and more lie in blocks (IEEE 802.11, annex E); in the band of 2.4 GHz it is not told on which side. */
function centreOfBlock(band: AirBand, channel: number, widthMhz: number): number {
  const own = centreOf(band, channel);
  if (band === '2.4' || widthMhz <= 20) return own;
  const begin = band === '6' ? 1 : channel >= 149 ? 149 : 36;
  const channels = widthMhz / 5;
  const block = Math.floor((channel - begin) / channels);
  return centreOf(band, begin) + 5 * (block * channels) + widthMhz / 2 - 10;
}

function networkOf(reported: Reported, own: boolean, seen: Map<string, number>): AirNetwork[] {
  const at = channelOf(textOf(reported.spairport_network_channel));
  const signalDbm = Number(/^(-\d+) dBm/.exec(textOf(reported.spairport_signal_noise))?.[1] ?? NaN);
  if (at === null || Number.isNaN(signalDbm)) return [];
  const told = textOf(reported._name);
  const name = told === '' || told === '<redacted>' ? null : told;
  // Newer systems keep the addresses of access points to themselves: told apart by what is left.
  const likeness = `${name ?? 'no name'}, channel ${at.channel}`;
  const count = (seen.get(likeness) ?? 0) + 1;
  seen.set(likeness, count);
  const bssid = textOf(reported.spairport_network_bssid).toLowerCase();
  const country = textOf(reported.spairport_network_country_code);
  return [
    {
      ...{ name, signalDbm, load: null, stations: null, own, widthMhz: at.widthMhz },
      bssid: bssid === '' ? (count === 1 ? likeness : `${likeness} (${count})`) : bssid,
      primaryMhz: centreOf(at.band, at.channel),
      centreMhz: centreOfBlock(at.band, at.channel, at.widthMhz),
      country: /^[A-Z]{2}$/.test(country) ? country : null,
    },
  ];
}

/** Interfaces with a radio in what `system_profiler SPAirPortDataType -json` prints on macOS; none where that is something else. */
function interfacesOf(json: string): readonly Interface[] {
  try {
    const report = JSON.parse(json) as {
      SPAirPortDataType?: { spairport_airport_interfaces?: readonly Interface[] }[];
    };
    return report.SPAirPortDataType?.flatMap(({ spairport_airport_interfaces: each }) => each ?? []) ?? [];
  } catch {
    return [];
  }
}

/** The networks that the first radio of such a report hears; null: there is no radio. */
export function readAirport(json: string): { readonly device: string; readonly networks: AirNetwork[] } | null {
  const radio = interfacesOf(json).find((each) => /^en\d/.test(textOf(each._name)));
  if (radio === undefined) return null;
  const { spairport_current_network_information: own, spairport_airport_other_local_wireless_networks: others } = radio;
  const seen = new Map<string, number>();
  return {
    device: textOf(radio._name),
    networks: [
      ...(own === undefined ? [] : networkOf(own, true, seen)),
      ...(others ?? []).flatMap((other) => networkOf(other, false, seen)),
    ],
  };
}
