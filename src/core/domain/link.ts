/** How a device is connected, as it was when a run was made. Rates in bits per second. */
export type Link =
  | {
      readonly medium: 'wired';
      readonly negotiatedBps: number | null;
      readonly mtuBytes: number;
      /** A VLAN tag in each frame (IEEE 802.1Q), PPPoE inside it (RFC 2516). Absent: no. */
      readonly vlan?: boolean | undefined;
      readonly pppoe?: boolean | undefined;
    }
  | {
      readonly medium: 'wifi';
      readonly band: WifiBand | null;
      readonly linkRateBps: number | null;
      /** Whether the far end of the run is on the same access point, so that each byte crosses the air twice. */
      readonly sharedAir?: boolean | undefined;
      readonly channel?: number | undefined;
      readonly widthMHz?: number | undefined;
      readonly signalDbm?: number | undefined;
      /** Name or BSSID; devices on one access point share its air. */
      readonly accessPoint?: string | undefined;
    }
  | {
      readonly medium: 'tunnel';
      readonly kind?: TunnelKind | undefined;
      /** The rate of the Ethernet or line that carries the tunnel. */
      readonly carrierBps?: number | undefined;
      /** What the device reaches the tunnel over. */
      readonly rides?: 'wired' | 'wifi' | 'mobile' | undefined;
    }
  | { readonly medium: 'unknown' };

export const WIFI_BANDS = ['2.4', '5', '6'] as const;
export type WifiBand = (typeof WIFI_BANDS)[number];

export const TUNNEL_KINDS = ['wireguard', 'openvpn', 'ipsec', 'ipsec-nat'] as const;
export type TunnelKind = (typeof TUNNEL_KINDS)[number];

/** Rates at which an Ethernet port comes up (IEEE 802.3), bits per second. */
export const ETHERNET_RATES_BPS = [10e6, 100e6, 1e9, 2.5e9, 5e9, 10e9, 25e9] as const;
export const USUAL_MTU_BYTES = 1500;

/** Widths of Wi-Fi channels (IEEE 802.11), MHz. */
export const WIFI_WIDTHS_MHZ = [20, 40, 80, 160, 320] as const;
export const TUNNEL_RIDES = ['wired', 'wifi', 'mobile'] as const;

/** The link without what changes by itself from one minute to the next: two runs over the same link have the same. */
export function steadyLink(link: Link): Link {
  return link.medium === 'wifi' ? { ...link, signalDbm: undefined, linkRateBps: null } : link;
}

/** One short key per kind of link: what the columns of the board and the filters of the ledger go by. */
export const LINK_KINDS = ['wired', 'wifi-2.4', 'wifi-5', 'wifi-6', 'wifi', 'tunnel', 'unknown'] as const;
export type LinkKind = (typeof LINK_KINDS)[number];

export function linkKindOf(link: Link): LinkKind {
  if (link.medium !== 'wifi') return link.medium;
  return link.band === null ? 'wifi' : `wifi-${link.band}`;
}

const KIND_WORDS: Record<LinkKind, string> = {
  wired: 'wired',
  'wifi-2.4': '2.4 GHz',
  'wifi-5': '5 GHz',
  'wifi-6': '6 GHz',
  wifi: 'Wi-Fi',
  tunnel: 'VPN',
  unknown: 'link not known',
};

export function linkKindWords(kind: LinkKind): string {
  return KIND_WORDS[kind];
}
