/**
 * What the peer's kernel said about one connection of the run (Linux, `ss -tin`), about once a second. Times in ms,
 * sizes in bytes. A field is null where the kernel did not print it; absence of a sign proves nothing.
 */
export interface KernelSighting {
  /** On the peer's monotonic clock. */
  readonly atMs: number;
  /** The client's port: tells the connections apart. */
  readonly port: number;
  readonly mssBytes: number | null;
  readonly pathMtuBytes: number | null;
  readonly rttMs: number | null;
  readonly minRttMs: number | null;
  readonly retransmitted: number | null;
  /** Retransmissions that turned out to have been needless (DSACK). */
  readonly spurious: number | null;
  readonly bytesAcked: number | null;
  /** Time in which there was something to send, and the part of it in which the receiver's window held it back. */
  readonly busyMs: number | null;
  readonly receiverLimitedMs: number | null;
  readonly congestionControl: string | null;
}

/** How busy the peer was at a time on its own monotonic clock. */
export interface PeerLoadSample {
  readonly atMs: number;
  /** Sessions besides this one that moved data in the last second. */
  readonly otherSessions: number;
  /** Share of all cores in use since the last sample, 0 to 1; null where the system does not tell. */
  readonly cpuShare: number | null;
  /** How late the peer's own event loop was at worst since the last sample, ms. */
  readonly loopLateMs: number;
}
