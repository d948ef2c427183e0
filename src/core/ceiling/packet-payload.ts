const IP_HEADER_BYTES = { 4: 20, 6: 40 } as const;
const TCP_HEADER_BYTES = 20;
const TIMESTAMP_BYTES = 12;

/** TCP payload bytes in one full IP packet. Example: 1500 bytes, IPv4, timestamps (RFC 7323) → 1448. */
export function payloadOfPacket(
  packetBytes: number,
  { ipVersion, timestamps }: { readonly ipVersion: 4 | 6; readonly timestamps: boolean },
): number {
  return packetBytes - IP_HEADER_BYTES[ipVersion] - TCP_HEADER_BYTES - (timestamps ? TIMESTAMP_BYTES : 0);
}
