import type { LinkCeiling } from './link-ceiling-type';
import { payloadOfPacket } from './packet-payload';

/** What is needed to say what an Ethernet link can carry. */
export interface EthernetPath {
  readonly lineRateBps: number;
  readonly mtuBytes: number;
  readonly ipVersion: 4 | 6;
  /** TCP timestamps (RFC 7323): 12 bytes in each segment; usual on Linux, macOS and phones. */
  readonly timestamps: boolean;
  readonly vlan?: boolean | undefined;
  readonly pppoe?: boolean | undefined;
}

/** Preamble and start 8, header 14, frame check 4, gap 12 (IEEE 802.3); a VLAN tag 4 (IEEE 802.1Q). */
const ETHERNET_FRAMING_BYTES = 38;
const VLAN_TAG_BYTES = 4;
/** PPPoE and PPP headers (RFC 2516 §4), taken off the MTU. */
const PPPOE_BYTES = 8;

/** Bytes that one packet of `mtuBytes` takes on the wire. */
export function ethernetWireBytes(mtuBytes: number, vlan = false): number {
  return mtuBytes + ETHERNET_FRAMING_BYTES + (vlan ? VLAN_TAG_BYTES : 0);
}

/**
 * Best TCP payload rate of an Ethernet link with full packets:
 * line rate × (MTU − IP − TCP) / (MTU + 38). Example: 1 Gb/s, 1500, IPv4, timestamps → 1448/1538 → 941 Mb/s.
 */
export function ceilingOfEthernet(path: EthernetPath): LinkCeiling {
  const { lineRateBps, mtuBytes, vlan = false, pppoe = false } = path;
  const payloadBytes = payloadOfPacket(mtuBytes - (pppoe ? PPPOE_BYTES : 0), path);
  const wireBytes = ethernetWireBytes(mtuBytes, vlan);
  const payloadBps = (lineRateBps * payloadBytes) / wireBytes;
  return {
    payloadBps,
    rangeBps: null,
    lineRateBps,
    ground: { kind: 'ethernet', payloadBytes, wireBytes, vlan, pppoe },
  };
}
