import { bandOf, centreOf, type AirNetwork } from './air-network';

/** What is known of a network while its lines are read. */
interface Heard {
  readonly bssid: string;
  readonly own: boolean;
  mhz: number | null;
  signalDbm: number | null;
  name: string | null;
  load: number | null;
  stations: number | null;
  country: string | null;
  secondary: 'above' | 'below' | null;
  widthMhz: number | null;
  segments: number[];
}

/** iw writes what is no letter as \xNN: bytes, in whatever alphabet the name is. */
function readName(written: string): string | null {
  const bytes: number[] = [];
  for (let at = 0; at < written.length;) {
    const hex = /^\\x([0-9a-f]{2})/i.exec(written.slice(at));
    if (hex !== null) {
      bytes.push(Number.parseInt(hex[1]!, 16));
      at += 4;
      continue;
    }
    const point = written.codePointAt(at)!;
    bytes.push(...new TextEncoder().encode(String.fromCodePoint(point)));
    at += point > 0xffff ? 2 : 1;
  }
  // A hidden one sends no name, or one of zeros.
  if (bytes.every((byte) => byte === 0)) return null;
  return new TextDecoder().decode(Uint8Array.from(bytes));
}

function readLine(heard: Heard, line: string): void {
  const found = (pattern: RegExp) => pattern.exec(line)?.[1];
  const freq = found(/^\s*freq: ([\d.]+)/);
  if (freq !== undefined) heard.mhz = Math.round(Number(freq));
  const signal = found(/^\s*signal: (-?[\d.]+) dBm/);
  if (signal !== undefined) heard.signalDbm = Number(signal);
  const name = found(/^\s*SSID: ?(.*)$/);
  if (name !== undefined) heard.name = readName(name);
  const country = found(/^\s*Country: ([A-Z]{2})\b/);
  if (country !== undefined) heard.country = country;
  const stations = found(/^\s*\* station count: (\d+)/);
  if (stations !== undefined) heard.stations = Number(stations);
  const busy = /^\s*\* channel utili[sz]ation: (\d+)\/255/.exec(line);
  if (busy !== null) heard.load = Number(busy[1]) / 255;
  const secondary = found(/^\s*\* secondary channel offset: (above|below)/);
  if (secondary !== undefined) heard.secondary = secondary as 'above' | 'below';
  // "channel width: 1 (80 MHz)", of VHT, HE and EHT alike: the widest that it says is what it uses.
  const width = found(/^\s*\* channel width: .*?\((\d+)(?:\+80)? MHz\)/i);
  if (width !== undefined) heard.widthMhz = Math.max(heard.widthMhz ?? 0, Number(width));
  const segment = found(/^\s*\* cent(?:er|re) freq(?:uency)? segment [012]: (\d+)/i);
  if (segment !== undefined && Number(segment) > 0) heard.segments.push(Number(segment));
}

function networkOf({ mhz, signalDbm, secondary, widthMhz, segments, ...heard }: Heard): AirNetwork | null {
  const band = mhz === null ? null : bandOf(mhz);
  if (mhz === null || signalDbm === null || band === null) return null;
  const known = {
    ...{ name: heard.name, bssid: heard.bssid, own: heard.own, primaryMhz: mhz, signalDbm },
    ...{ load: heard.load, stations: heard.stations, country: heard.country },
  };
  const [first, second] = segments;
  if (widthMhz !== null && widthMhz >= 80 && first !== undefined) {
    // Two segments 40 MHz apart are one of 160 (IEEE 802.11, table 11-23); further apart they are two of 80.
    const whole = second !== undefined && Math.abs(second - first) === 8;
    const centre = whole ? second : first;
    return { ...known, widthMhz: whole ? 160 : widthMhz, centreMhz: centreOf(band, centre) };
  }
  if (secondary !== null) return { ...known, widthMhz: 40, centreMhz: mhz + (secondary === 'above' ? 10 : -10) };
  return { ...known, widthMhz: 20, centreMhz: mhz };
}

/** Reads what `iw dev … scan` prints. What is not whole, or lies in no band, is left out. */
export function readIwScan(text: string): AirNetwork[] {
  const all: Heard[] = [];
  for (const line of text.split('\n')) {
    const begin = /^BSS ([0-9a-f:]{17})\(?(.*)$/i.exec(line);
    if (begin !== null) {
      all.push({
        ...{ bssid: begin[1]!.toLowerCase(), own: begin[2]!.includes('associated'), mhz: null, signalDbm: null },
        ...{ name: null, load: null, stations: null, country: null, secondary: null, widthMhz: null, segments: [] },
      });
    } else if (all.length > 0) readLine(all.at(-1)!, line);
  }
  return all.map(networkOf).filter((network) => network !== null);
}
