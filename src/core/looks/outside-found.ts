/** How this office looks from outside, and whether its ports answer from there. */
export interface OutsideAsked {
  readonly what: 'outside';
  /** To be knocked at from outside, at most four. */
  readonly ports: readonly number[];
}

/** What became of one connection from outside: `silent`: nothing came back; `unreachable`: a router said that there is no way. */
export type KnockState = 'open' | 'refused' | 'silent' | 'unreachable';
export const KNOCK_STATES = ['open', 'refused', 'silent', 'unreachable'] as const satisfies readonly KnockState[];
/** More are not knocked at for one ticket. */
export const MOST_KNOCKS = 4;

export interface OutsideFound {
  readonly what: 'outside';
  /** Who looked from outside. */
  readonly peer: string;
  /** The machine's own address on its way there. */
  readonly ownAddress: string;
  /** The address that the peer saw; null: it is of a version that does not tell. */
  readonly seenAddress: string | null;
  /** What the office's router says that its address outside is (UPnP IGD); null: it does not tell. */
  readonly routerAddress: string | null;
  /** Whether the machine has an address of its own by which everybody could reach it by IPv6. */
  readonly ownIpv6: boolean;
  readonly ports: readonly { readonly port: number; readonly state: KnockState }[];
}

/** Where an address can be reached from: the registries of RFC 6890; `shared`: among customers of a provider (RFC 6598). */
type Range = 'public' | 'private' | 'shared';

function ipv4Of(address: string): number | null {
  const parts = /^(?:::ffff:)?(\d{1,3})\.(\d{1,3})\.(\d{1,3})\.(\d{1,3})$/i.exec(address)?.slice(1).map(Number);
  return parts === undefined || parts.some((part) => part > 255)
    ? null
    : parts.reduce((whole, part) => whole * 256 + part, 0);
}

const within = (address: number, begin: string, bits: number) =>
  Math.floor(address / 2 ** (32 - bits)) === Math.floor(ipv4Of(begin)! / 2 ** (32 - bits));

function rangeOf(address: string): Range {
  const ipv4 = ipv4Of(address);
  // Of one link, of one site, or of this machine (RFC 4291, RFC 4193).
  if (ipv4 === null) return /^(?:fe[89ab]|f[cd]|::1$)/i.test(address) ? 'private' : 'public';
  if (within(ipv4, '100.64.0.0', 10)) return 'shared';
  const isPrivate = (
    [
      ['10.0.0.0', 8],
      ['172.16.0.0', 12],
      ['192.168.0.0', 16],
      ['127.0.0.0', 8],
      ['169.254.0.0', 16],
    ] as const
  ).some(([begin, bits]) => within(ipv4, begin, bits));
  return isPrivate ? 'private' : 'public';
}

/**
 * How many translate addresses (NAT, RFC 3022) on the way out. `none`: the machine is seen by its own address. `router`: the office's
 * router, and nobody behind it as far as it says. `unknown-more`: at least one; the router does not say whether there is another.
 * `provider`: somebody behind the office's router does it once more, so no port of the office can be opened from inside. `not-outside`:
 * the peer sees a private address, so it does not look from outside.
 */
export type Translation = 'none' | 'router' | 'unknown-more' | 'provider' | 'not-outside' | 'unknown';

const plain = (address: string) => address.replace(/^::ffff:/i, '').toLowerCase();

export function translationOf({
  ownAddress,
  seenAddress,
  routerAddress,
}: Pick<OutsideFound, 'ownAddress' | 'seenAddress' | 'routerAddress'>): Translation {
  if (seenAddress === null) return 'unknown';
  const range = rangeOf(seenAddress);
  if (range === 'private') return 'not-outside';
  if (plain(seenAddress) === plain(ownAddress)) return 'none';
  // What the peer sees is shared where it stands in the provider's own network.
  if (range === 'shared') return 'provider';
  if (routerAddress === null) return 'unknown-more';
  return plain(routerAddress) === plain(seenAddress) ? 'router' : 'provider';
}
