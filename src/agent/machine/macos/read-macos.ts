import { USUAL_MTU_BYTES, WIFI_WIDTHS_MHZ, type AirNetwork, type Link, type NetLink } from '@/core';
import { isSomebody, type Neighbour } from '../machine-view';

/** Devices of the ports that `networksetup -listallhardwareports` lists, by what the port is called. */
export function readHardwarePorts(text: string): ReadonlyMap<string, string> {
  const ports = [...text.matchAll(/^Hardware Port: (.*)\nDevice: (\S+)$/gm)];
  return new Map(ports.map(([, port, device]) => [device!, port!]));
}

function mediumOf(name: string, port: string | undefined): NetLink['medium'] {
  if (/wi-?fi|airport/i.test(port ?? '')) return 'wifi';
  if (/^(utun|tun|tap|ppp|ipsec|wg)\d/.test(name)) return 'tunnel';
  return /^en\d/.test(name) ? 'wired' : 'other';
}

/** "1000baseT", "2500Base-T", "10Gbase-T", Mb/s. */
function mediaMbps(media: string): number | null {
  const found = /(\d+)(G?)base/i.exec(media);
  return found === null ? null : Number(found[1]) * (found[2] === '' ? 1 : 1000);
}

/** Interfaces in what `ifconfig` prints, but loopback, and those that nothing goes by: without an address and not a port. */
export function readIfconfig(text: string, ports: ReadonlyMap<string, string>): NetLink[] {
  const blocks = text.split(/^(?=\S+: flags=)/m).filter((block) => block !== '' && !block.startsWith('lo'));
  return blocks
    .map((block): NetLink => {
      const name = /^(\S+): /.exec(block)![1]!;
      const [flags, mtu] = [/flags=\w+<([^>]*)>/.exec(block)?.[1] ?? '', /\bmtu (\d+)/.exec(block)?.[1]];
      const status = /^\s+status: (\w+)/m.exec(block)?.[1];
      const media = /^\s+media: (.*)$/m.exec(block)?.[1] ?? '';
      const medium = mediumOf(name, ports.get(name));
      const up = status === undefined ? /\bUP\b/.test(flags) && /\bRUNNING\b/.test(flags) : status === 'active';
      const addresses = [...block.matchAll(/^\s+inet6? ([0-9a-f.:]+)/gm)].map(([, address]) => address!);
      return {
        ...{ name, medium, up, mtuBytes: mtu === undefined ? null : Number(mtu), driver: null, addresses },
        speedMbps: medium === 'wired' && up ? mediaMbps(media) : null,
        duplex:
          medium !== 'wired' || !up
            ? null
            : /full-duplex/.test(media)
              ? 'full'
              : /half-duplex/.test(media)
                ? 'half'
                : null,
      };
    })
    .filter(({ name, addresses }) => ports.has(name) || addresses.some((address) => !address.startsWith('fe80')))
    .sort((a, b) => a.name.localeCompare(b.name));
}

/** Gateway and interface that `route -n get` tells; null where it tells none. */
export function readRouteGet(text: string): { readonly gateway: string | null; readonly link: string } | null {
  const link = /^\s*interface: (\S+)/m.exec(text)?.[1];
  const gateway = /^\s*gateway: ([0-9.]+)$/m.exec(text)?.[1] ?? null;
  return link === undefined ? null : { gateway, link };
}

/** Servers in what `scutil --dns` prints, but of single interfaces. */
export function readScutil(text: string): string[] {
  const [everywhere] = text.split('DNS configuration (for scoped queries)');
  return [...new Set([...everywhere!.matchAll(/nameserver\[\d+\] : ([0-9a-fA-F.:]+)/g)].map(([, server]) => server!))];
}

/** Neighbours in what `arp -an` prints: bytes of an address without leading zeros. */
export function readArpTable(text: string): Neighbour[] {
  return [...text.matchAll(/\(([\d.]+)\) at ([0-9a-f:]+) on (\S+)/gi)].flatMap(([, address, written, link]) => {
    const mac = written!
      .split(':')
      .map((byte) => byte.padStart(2, '0'))
      .join(':')
      .toLowerCase();
    return isSomebody(mac) ? [{ address: address!, mac, link: link! }] : [];
  });
}

/** The rate of the connection in what `system_profiler SPAirPortDataType -json` prints, bits per second; null: none. */
export function readAirportRate(json: string): number | null {
  const rate = /"spairport_network_rate"\s*:\s*(\d+)/.exec(json)?.[1];
  return rate === undefined ? null : Number(rate) * 1e6;
}

/** The link that a run over this interface has; of a radio, with the network that it uses. */
export function macLink(
  link: NetLink | undefined,
  wifi: {
    readonly own: AirNetwork | undefined;
    readonly rateBps: number | null;
    readonly place: Pick<Extract<Link, { medium: 'wifi' }>, 'band' | 'channel'> | null;
  } | null,
): Link | null {
  if (link === undefined) return null;
  switch (link.medium) {
    case 'wifi':
      return {
        ...{ medium: 'wifi', band: wifi?.place?.band ?? null, linkRateBps: wifi?.rateBps ?? null },
        ...(wifi?.place?.channel !== undefined && { channel: wifi.place.channel }),
        ...(wifi?.own !== undefined && { signalDbm: wifi.own.signalDbm }),
        ...(isWidth(wifi?.own?.widthMhz) && { widthMHz: wifi!.own!.widthMhz }),
      };
    case 'tunnel':
      return { medium: 'tunnel' };
    case 'wired':
      return {
        ...{ medium: 'wired', negotiatedBps: link.speedMbps === null ? null : link.speedMbps * 1e6 },
        mtuBytes: link.mtuBytes ?? USUAL_MTU_BYTES,
      };
    case 'other':
      return { medium: 'unknown' };
  }
}

const isWidth = (widthMhz: number | undefined) =>
  widthMhz !== undefined && (WIFI_WIDTHS_MHZ as readonly number[]).includes(widthMhz);
