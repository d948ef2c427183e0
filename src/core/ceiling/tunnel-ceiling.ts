import { ethernetWireBytes } from './ethernet-ceiling';
import type { TunnelKind } from '../domain/link';
import type { LinkCeiling } from './link-ceiling-type';
import { payloadOfPacket } from './packet-payload';

/**
 * Bytes that a tunnel adds to each packet over IPv4, and the packet that then still fits into 1500.
 * WireGuard: IP 20, UDP 8, header 16, tag 16. OpenVPN over UDP, AES-GCM: IP 20, UDP 8, header 8, tag 16. IPsec ESP in
 * tunnel mode, AES-GCM (RFC 4303, 4106): IP 20, ESP 8, IV 8, trailer 2, tag 16; NAT traversal (RFC 3948) 8 more.
 */
const TUNNELS: Readonly<Record<TunnelKind, { addsBytes: number; innerMtuBytes: number }>> = {
  wireguard: { addsBytes: 60, innerMtuBytes: 1420 },
  openvpn: { addsBytes: 52, innerMtuBytes: 1440 },
  ipsec: { addsBytes: 54, innerMtuBytes: 1438 },
  'ipsec-nat': { addsBytes: 62, innerMtuBytes: 1430 },
};
/** An outer IPv6 header is 20 bytes longer. */
const OUTER_IPV6_BYTES = 20;

export interface TunnelPath {
  readonly kind: TunnelKind;
  /** Rate of the Ethernet that carries it. */
  readonly carrierBps: number;
  readonly outerIpVersion: 4 | 6;
  readonly ipVersion: 4 | 6;
  readonly timestamps: boolean;
}

/** Best TCP payload rate inside a tunnel. Example: WireGuard over gigabit IPv4: 1368/1518 → 901 Mb/s. */
export function ceilingOfTunnel({ kind, carrierBps, outerIpVersion, ...inner }: TunnelPath): LinkCeiling {
  const { addsBytes, innerMtuBytes } = TUNNELS[kind];
  const payloadBytes = payloadOfPacket(innerMtuBytes, inner);
  const outerBytes = innerMtuBytes + addsBytes + (outerIpVersion === 6 ? OUTER_IPV6_BYTES : 0);
  const wireBytes = ethernetWireBytes(outerBytes);
  const payloadBps = (carrierBps * payloadBytes) / wireBytes;
  return {
    payloadBps,
    rangeBps: null,
    lineRateBps: carrierBps,
    ground: { kind: 'tunnel', tunnel: kind, payloadBytes, wireBytes },
  };
}
