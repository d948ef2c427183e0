/** How a lane asks: echo requests (RFC 792, RFC 4443), STAMP (RFC 8762), the handshake of a TCP port, or the first byte of a web page. */
export const LANE_KINDS = ['echo', 'stamp', 'connect', 'web'] as const;
export type LaneKind = (typeof LANE_KINDS)[number];

/** What stands at the other end, as far as it says whose fault a silence is. */
export const LANE_ROLES = ['gateway', 'inside', 'outside', 'far'] as const;
export type LaneRole = (typeof LANE_ROLES)[number];

/** Delay to one target over time, as one agent sees it. */
export interface Lane {
  readonly id: string;
  readonly name: string;
  readonly kind: LaneKind;
  /** A name or an address, `HOST:PORT`, or a web address. */
  readonly target: string;
  readonly role: LaneRole;
  /** Between two requests, ms. */
  readonly everyMs: number;
  /** What proves the packets of STAMP in its authenticated mode; absent or null: it is unauthenticated. */
  readonly key?: string | null | undefined;
}

/** What a lane said in a stretch of time; times in ms, null: nothing was answered. */
export interface LaneFigures {
  /** Requests that were sent. Fewer than the stretch has room for: nobody was there to send them. */
  readonly sent: number;
  readonly answered: number;
  /** Of those without an answer, so many are known to have been lost on the way there and on the way back; the others: not known where. */
  readonly lostThere: number;
  readonly lostBack: number;
  readonly minMs: number | null;
  readonly medianMs: number | null;
  readonly p95Ms: number | null;
  readonly maxMs: number | null;
}

/** One minute of a lane. */
export interface LaneMinute extends LaneFigures {
  readonly laneId: string;
  /** Its begin: a whole minute, ms since 1970. */
  readonly fromMs: number;
  /** Each request with its answer, packed; see `packMinute`. */
  readonly raw: Uint8Array;
}

/** One request of a lane. */
export interface LaneEcho {
  /** When it was sent, ms since 1970. */
  readonly atMs: number;
  /** Round trip, ms; null: nothing came back. */
  readonly ms: number | null;
  /** The number that the far end gave its answer, where it counts them. */
  readonly reflected?: number | undefined;
}

export const MINUTE_MS = 60_000;
