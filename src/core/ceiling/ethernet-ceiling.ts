/** What is needed to say what an Ethernet link can carry. */
export interface EthernetPath {
  readonly lineRateBps: number;
  readonly mtuBytes: number;
  readonly ipVersion: 4 | 6;
  /** TCP timestamps (RFC 7323): 12 bytes in each segment; usual on Linux, macOS and phones. */
  readonly timestamps: boolean;
}

export interface LinkCeiling {
  /** Best TCP payload rate, bits per second. */
  readonly payloadBps: number;
  /** Payload bytes in one full packet, and the bytes that packet takes on the wire. */
  readonly payloadBytes: number;
  readonly wireBytes: number;
  readonly lineRateBps: number;
}

/** Preamble and start 8, header 14, frame check 4, gap 12 (IEEE 802.3). */
const ETHERNET_FRAMING_BYTES = 38;
const IP_HEADER_BYTES = { 4: 20, 6: 40 } as const;
const TCP_HEADER_BYTES = 20;
const TIMESTAMP_BYTES = 12;

/**
 * Best TCP payload rate of an Ethernet link with full packets:
 * line rate × (MTU − IP − TCP) / (MTU + 38). Example: 1 Gb/s, 1500, IPv4, timestamps → 1448/1538 → 941 Mb/s.
 */
export function ceilingOfEthernet({ lineRateBps, mtuBytes, ipVersion, timestamps }: EthernetPath): LinkCeiling {
  const headers = IP_HEADER_BYTES[ipVersion] + TCP_HEADER_BYTES + (timestamps ? TIMESTAMP_BYTES : 0);
  const payloadBytes = mtuBytes - headers;
  const wireBytes = mtuBytes + ETHERNET_FRAMING_BYTES;
  return { payloadBps: (lineRateBps * payloadBytes) / wireBytes, payloadBytes, wireBytes, lineRateBps };
}
