/**
 * Round trips of numbered UDP packets (STAMP, RFC 8762) or data-channel messages. Index = the sender's sequence number.
 * Shapes [N]: `sentMs` on the run's clock; `rttMs` the round trip, less the time the reflector held the packet, or null
 * when no reply came; `reflected` the reflector's own sequence number of the first reply, or null.
 */
export interface UdpSeries {
  readonly kind: 'stamp' | 'stamp-authenticated' | 'data-channel';
  readonly sentMs: readonly number[];
  readonly rttMs: readonly (number | null)[];
  readonly reflected: readonly (number | null)[];
  /** From the sender's stamp to the reflector's, ms; holds the difference of the two clocks. Null where not stamped. */
  readonly upMs: readonly (number | null)[];
  /** Replies beyond the first to the same packet. */
  readonly duplicates: number;
  /** How many distinct packets the peer says it got; null when it could not be asked at the end. */
  readonly peerReceived: number | null;
}
