import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { bandOf, USUAL_MTU_BYTES, WIFI_WIDTHS_MHZ, type Link } from '@/core';
import { positiveFact, printed, readFact } from '../printed';
import { readRoutes, routeTo } from './default-route';
import { isRadio, tunnelOf } from './net-links';

/** What the system tells of one interface; null where a file or a program is missing. */
export interface InterfaceFacts {
  readonly name: string;
  readonly wireless: boolean;
  /** "wireguard" for such a device, "tun" for a TUN or TAP device; null for a plain one. */
  readonly tunnel: 'wireguard' | 'tun' | null;
  /** Negotiated rate, Mb/s. */
  readonly speedMbps: number | null;
  readonly mtuBytes: number | null;
  readonly vlan: boolean;
  /** What `iw dev NAME link` and `iw dev NAME info` print. */
  readonly iwLink: string | null;
  readonly iwInfo: string | null;
}

function wifiOf(iwLink: string, iwInfo: string): Link {
  const number = (text: string, pattern: RegExp) => {
    const found = pattern.exec(text)?.[1];
    return found === undefined ? null : Number(found);
  };
  const mhz = number(iwLink, /freq: ([\d.]+)/);
  const [rateMbps, signalDbm] = [number(iwLink, /tx bitrate: ([\d.]+) MBit/), number(iwLink, /signal: (-\d+) dBm/)];
  const [channel, width] = [number(iwInfo, /channel (\d+)/), number(iwInfo, /width: (\d+) MHz/)];
  const accessPoint = /Connected to ([0-9a-f:]{17})/.exec(iwLink)?.[1];
  return {
    medium: 'wifi',
    band: mhz === null ? null : bandOf(mhz),
    linkRateBps: rateMbps === null ? null : rateMbps * 1e6,
    ...(signalDbm !== null && { signalDbm }),
    ...(channel !== null && { channel }),
    ...(width !== null && (WIFI_WIDTHS_MHZ as readonly number[]).includes(width) && { widthMHz: width }),
    ...(accessPoint !== undefined && { accessPoint }),
  };
}

/** The link that a run over this interface has. Loopback and what tells nothing is not known. */
export function linkOfInterface(facts: InterfaceFacts): Link {
  if (facts.name === 'lo') return { medium: 'unknown' };
  if (facts.tunnel !== null)
    return { medium: 'tunnel', ...(facts.tunnel === 'wireguard' && { kind: 'wireguard' as const }) };
  if (facts.wireless) return wifiOf(facts.iwLink ?? '', facts.iwInfo ?? '');
  return {
    medium: 'wired',
    negotiatedBps: facts.speedMbps !== null && facts.speedMbps > 0 ? facts.speedMbps * 1e6 : null,
    mtuBytes: facts.mtuBytes ?? USUAL_MTU_BYTES,
    ...(facts.vlan && { vlan: true }),
  };
}

/** The interface by which packets to an address leave; where there is no `ip`, by the kernel's own table, for IPv4. */
async function interfaceTowards(address: string): Promise<string | null> {
  const route = await printed('ip', ['route', 'get', address]);
  if (route !== null) return / dev (\S+)/.exec(route)?.[1] ?? null;
  return routeTo(readRoutes(readFact('/proc/net/route') ?? ''), address)?.link ?? null;
}

/** How packets to an address leave, from Linux's own view; null where that cannot be told. */
export async function linuxLinkTowards(address: string): Promise<Link | null> {
  const name = await interfaceTowards(address);
  if (name === null) return null;
  const folder = join('/sys/class/net', name);
  const wireless = isRadio(folder);
  return linkOfInterface({
    name,
    wireless,
    tunnel: tunnelOf(folder),
    speedMbps: positiveFact(join(folder, 'speed')),
    mtuBytes: positiveFact(join(folder, 'mtu')),
    vlan: existsSync(join('/proc/net/vlan', name)),
    iwLink: wireless ? await printed('iw', ['dev', name, 'link']) : null,
    iwInfo: wireless ? await printed('iw', ['dev', name, 'info']) : null,
  });
}
