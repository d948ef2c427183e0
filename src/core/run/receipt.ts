/** What a peer moved for one session in one direction. Bytes are payload; times on the peer's monotonic clock, ms. */
export interface DirectionReceipt {
  readonly bytes: number;
  /** How long at least one stream was open, from its beginning to its last bytes. */
  readonly activeMs: number;
  readonly streams: readonly {
    readonly stream: number;
    readonly bytes: number;
    readonly firstMs: number;
    readonly lastMs: number;
  }[];
}

/**
 * What a peer says of a session when it has ended, signed with its key: what it sent and received, and how it saw the
 * client. A client's samples are held against it.
 */
export interface Receipt {
  readonly session: string;
  readonly runId: string;
  readonly ticketId: string;
  readonly openedMs: number;
  readonly endedMs: number;
  readonly down: DirectionReceipt;
  readonly up: DirectionReceipt;
  /** Probes that were echoed. */
  readonly echoes: number;
  readonly sameMachine: boolean;
  readonly ipVersion: 4 | 6;
  /** The least round trip that the peer's kernel saw on its streams, ms; null where it does not tell. */
  readonly minRttMs: number | null;
  /** Most sessions that moved data beside this one at once. */
  readonly otherSessions: number;
}
