import * as z from 'zod';
import { bandNamed, dbmOfPercent, USUAL_MTU_BYTES, type Link, type NetLink } from '@/core';
import { isSomebody, type Neighbour } from '../machine-view';

/**
 * What this machine is connected by, as one document: each list by the cmdlets of NetAdapter, NetTCPIP and DnsClient. Numbers
 * instead of words where there are any: words are written in the language of the system.
 */
export const WINDOWS_SCRIPT = `$ErrorActionPreference='SilentlyContinue'
[Console]::OutputEncoding=[Text.Encoding]::UTF8
@{
adapters=@(Get-NetAdapter | ForEach-Object { @{ name=$_.Name; about=$_.InterfaceDescription; up=($_.InterfaceOperationalStatus -eq 1); medium=[int]$_.NdisPhysicalMedium; type=[int]$_.InterfaceType; hardware=[bool]$_.HardwareInterface; bps=[double]$_.TransmitLinkSpeed; full=$_.FullDuplex; mtu=[int]$_.MtuSize; driver=[string]$_.DriverName; vlan=$_.VlanID } })
routes=@(Get-NetRoute -DestinationPrefix '0.0.0.0/0' | ForEach-Object { @{ link=$_.InterfaceAlias; gateway=$_.NextHop; metric=[int]$_.RouteMetric+[int]$_.InterfaceMetric } })
resolvers=@(Get-DnsClientServerAddress | ForEach-Object { @{ link=$_.InterfaceAlias; addresses=@($_.ServerAddresses) } })
neighbours=@(Get-NetNeighbor | Where-Object { [int]$_.State -gt 1 } | ForEach-Object { @{ address=$_.IPAddress; mac=$_.LinkLayerAddress; link=$_.InterfaceAlias } })
system=[string](Get-CimInstance Win32_OperatingSystem).Caption
} | ConvertTo-Json -Depth 4 -Compress`;

const text = z.string();
const number = z
  .number()
  .nullish()
  .transform((value) => value ?? null);
const words = text.nullish().transform((value) => value ?? null);
const flag = z
  .boolean()
  .nullish()
  .transform((value) => value ?? null);
const adapter = z.object({
  ...{
    name: text,
    about: words,
    up: z.boolean(),
    medium: number,
    type: number,
    hardware: flag,
  },
  ...{ bps: number, full: flag, mtu: number, driver: words, vlan: number },
});
const factsSchema = z.object({
  adapters: z.array(adapter).default([]),
  routes: z.array(z.object({ link: text, gateway: text, metric: z.number() })).default([]),
  resolvers: z.array(z.object({ link: text, addresses: z.array(text).nullish() })).default([]),
  neighbours: z.array(z.object({ address: text, mac: words, link: text })).default([]),
  system: text.default(''),
});
export type WindowsFacts = z.infer<typeof factsSchema>;
type Adapter = WindowsFacts['adapters'][number];

/** Null: it printed something else. */
export function readWindows(json: string): WindowsFacts | null {
  try {
    return factsSchema.safeParse(JSON.parse(json.replace(/^\uFEFF/, ''))).data ?? null;
  } catch {
    return null;
  }
}

/** Physical media (NDIS_PHYSICAL_MEDIUM) and kinds of interface (IANAifType-MIB). */
const RADIO = [1, 9];
export const isRadio = ({ medium }: Pick<Adapter, 'medium'>) => RADIO.includes(medium ?? 0);
const ETHERNET_MEDIUM = 14;
const ETHERNET = 6;
const TUNNELS = [23, 53, 131];
const TUNNEL_WORDS = /wireguard|wintun|tap-windows|openvpn|vpn|tunnel/i;
/** What a port writes there that is out. */
const MOST_BPS = 1e12;

function mediumOf({ medium, type, hardware, about }: Adapter): NetLink['medium'] {
  if (isRadio({ medium })) return 'wifi';
  if (TUNNELS.includes(type ?? 0) || TUNNEL_WORDS.test(about ?? '')) return 'tunnel';
  return type === ETHERNET && (medium === ETHERNET_MEDIUM || hardware === true) ? 'wired' : 'other';
}

const rateOf = ({ bps, up }: Adapter) => (up && bps !== null && bps > 0 && bps < MOST_BPS ? bps : null);

export function windowsLinks(
  { adapters }: Pick<WindowsFacts, 'adapters'>,
  addressesOf: (link: string) => readonly string[],
): NetLink[] {
  return adapters
    .map((each): NetLink => {
      const medium = mediumOf(each);
      const wired = medium === 'wired';
      const rate = wired ? rateOf(each) : null;
      return {
        ...{ name: each.name, medium, up: each.up, mtuBytes: each.mtu !== null && each.mtu > 0 ? each.mtu : null },
        speedMbps: rate === null ? null : rate / 1e6,
        duplex: wired && each.up && each.full !== null ? (each.full ? 'full' : 'half') : null,
        driver: /([^\\/]+)\.sys$/i.exec(each.driver ?? '')?.[1] ?? null,
        addresses: addressesOf(each.name),
      };
    })
    .sort((a, b) => a.name.localeCompare(b.name));
}

export function windowsGateway({ routes }: Pick<WindowsFacts, 'routes'>) {
  const [first] = routes.filter(({ gateway }) => gateway !== '0.0.0.0').sort((a, b) => a.metric - b.metric);
  return first === undefined ? null : { address: first.gateway, link: first.link };
}

/** What the system fills in by itself where nobody named one (RFC 3879 took these out of use). */
const isFilledIn = (address: string) => /^fec0:/i.test(address);

/** Of links that are up, those of the link to the gateway first. */
export function windowsResolvers(facts: WindowsFacts): string[] {
  const towards = windowsGateway(facts)?.link;
  const up = new Set(facts.adapters.filter((each) => each.up).map(({ name }) => name));
  const all = facts.resolvers
    .filter(({ link }) => up.has(link))
    .sort((a, b) => Number(b.link === towards) - Number(a.link === towards))
    .flatMap(({ addresses }) => addresses ?? []);
  return [...new Set(all.filter((address) => !isFilledIn(address)))];
}

export function windowsNeighbours({ neighbours }: Pick<WindowsFacts, 'neighbours'>): Neighbour[] {
  return neighbours.flatMap(({ address, mac, link }) => {
    const written = (mac ?? '').replaceAll('-', ':').toLowerCase();
    return isSomebody(written) ? [{ address, mac: written, link }] : [];
  });
}

/**
 * What `netsh wlan show interfaces` says of the connection of one radio, in any language: the access point is the second hardware
 * address, its channel the first whole number after that, then the rates down and up, Mb/s.
 */
export function readNetshInterface(printed: string, name: string): Omit<Extract<Link, { medium: 'wifi' }>, 'medium'> {
  const values = printed.split(/\r?\n/).map((line) => /^\s+\S.*?\s*:\s(.*?)\s*$/.exec(line)?.[1] ?? '');
  const begin = values.indexOf(name);
  const own = begin < 0 ? values : values.slice(begin);
  const isMac = (value: string) => /^([0-9a-f]{2}:){5}[0-9a-f]{2}$/i.test(value);
  const macs = own.flatMap((value, place) => (isMac(value) ? [place] : []));
  const at = macs[1];
  if (at === undefined) return { band: null, linkRateBps: null };
  const after = own.slice(at + 1);
  const numbers = after
    .filter((value) => /^\d+([.,]\d+)?$/.test(value))
    .map((value) => Number(value.replace(',', '.')));
  const [channel, , upMbps] = numbers;
  const ghz = after.flatMap((value) => /^([\d.,]+)\s?GHz$/i.exec(value)?.[1] ?? [])[0];
  const band = channel === undefined ? null : bandNamed(ghz, channel);
  const percent = after.flatMap((value) => /^(\d+)\s?%$/.exec(value)?.[1] ?? [])[0];
  const exact = after.find((value) => /^-\d+$/.test(value));
  const signalDbm =
    exact !== undefined ? Number(exact) : percent !== undefined ? dbmOfPercent(Number(percent)) : undefined;
  return {
    ...{ band, linkRateBps: upMbps === undefined ? null : upMbps * 1e6, accessPoint: own[at]!.toLowerCase() },
    ...(channel !== undefined && { channel }),
    ...(signalDbm !== undefined && { signalDbm }),
  };
}

/** The link that a run over this adapter has; of a radio, with what is known of its connection. */
export function windowsLink(
  each: Adapter | undefined,
  wifi: ReturnType<typeof readNetshInterface> | null,
): Link | null {
  if (each === undefined) return null;
  switch (mediumOf(each)) {
    case 'wifi':
      return { medium: 'wifi', ...(wifi ?? { band: null, linkRateBps: rateOf(each) }) };
    case 'tunnel':
      return { medium: 'tunnel', ...(/wireguard|wintun/i.test(each.about ?? '') && { kind: 'wireguard' as const }) };
    case 'wired':
      return {
        ...{ medium: 'wired', negotiatedBps: rateOf(each), mtuBytes: each.mtu ?? USUAL_MTU_BYTES },
        ...(each.vlan !== null && each.vlan > 0 && { vlan: true }),
      };
    case 'other':
      return { medium: 'unknown' };
  }
}
