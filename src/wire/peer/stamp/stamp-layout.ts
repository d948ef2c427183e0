/**
 * STAMP test packets (RFC 8762 §4.2 and §4.3; the session identifier is RFC 8972 §3), big-endian. Offsets in bytes.
 *
 * | field                           | length | sender | reflector | sender, auth. | reflector, auth. |
 * |---------------------------------|--------|--------|-----------|---------------|------------------|
 * | sequence number                 | 4      | 0      | 0         | 0             | 0                |
 * | timestamp (NTP)                 | 8      | 4      | 4         | 16            | 16               |
 * | error estimate                  | 2      | 12     | 12        | 24            | 24               |
 * | session identifier              | 2      | 14     | 14        | 26            | 26               |
 * | receive timestamp (NTP)         | 8      | -      | 16        | -             | 32               |
 * | session-sender sequence number  | 4      | -      | 24        | -             | 48               |
 * | session-sender timestamp        | 8      | -      | 28        | -             | 64               |
 * | session-sender error estimate   | 2      | -      | 36        | -             | 72               |
 * | session-sender TTL              | 1      | -      | 40        | -             | 80               |
 * | HMAC-SHA-256, first 128 bits    | 16     | -      | -         | 96            | 96               |
 * | whole packet                    |        | 44     | 44        | 112           | 112              |
 *
 * Everything else must be zero. The HMAC covers the first 96 bytes (§4.4).
 */
export interface StampLayout {
  readonly timestamp: number;
  readonly errorEstimate: number;
  readonly sessionId: number;
  readonly received: number;
  readonly senderSequence: number;
  readonly senderTimestamp: number;
  readonly senderErrorEstimate: number;
  readonly senderTtl: number;
  readonly bytes: number;
}

export const PLAIN_LAYOUT: StampLayout = {
  timestamp: 4,
  errorEstimate: 12,
  sessionId: 14,
  received: 16,
  senderSequence: 24,
  senderTimestamp: 28,
  senderErrorEstimate: 36,
  senderTtl: 40,
  bytes: 44,
};

export const AUTHENTICATED_LAYOUT: StampLayout = {
  timestamp: 16,
  errorEstimate: 24,
  sessionId: 26,
  received: 32,
  senderSequence: 48,
  senderTimestamp: 64,
  senderErrorEstimate: 72,
  senderTtl: 80,
  bytes: 112,
};

export const HMAC_OFFSET = 96;
export const HMAC_BYTES = 16;
/** Larger than any path carries in one packet: such a thing is not answered. */
export const MOST_STAMP_BYTES = 9000;

export const layoutFor = (key: Uint8Array | null): StampLayout => (key === null ? PLAIN_LAYOUT : AUTHENTICATED_LAYOUT);
