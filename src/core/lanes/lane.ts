/**
 * How a lane asks: echo requests (RFC 792, RFC 4443), STAMP (RFC 8762), the handshake of a TCP port, or the first byte of a web page. The
 * two loads ask a router or switch what goes over one of its ports, into it and out of it: their figures are Mb/s and not ms. `probe`: a
 * page that stands by asks a peer over a WebSocket (RFC 6455); what is lost there is sent again, and comes late instead. The last three are
 * of the machine's own radio: how it hears its access point, dB below 1 mW; the rate at which it sends, Mb/s; and how much of what
 * it sends is sent again, percent.
 */
export const LANE_KINDS = [
  ...(['echo', 'stamp', 'connect', 'web', 'load-in', 'load-out', 'probe'] as const),
  ...(['signal', 'link-rate', 'retries'] as const),
] as const;
export type LaneKind = (typeof LANE_KINDS)[number];

/** Whether a lane tells a load, Mb/s, instead of a delay. One that tells nothing is no silence. */
export const isLoad = (kind: LaneKind) => kind === 'load-in' || kind === 'load-out';
/** Whether it tells of the machine's own radio: its target is the name of the interface. */
export const isRadioLane = (kind: LaneKind) => kind === 'signal' || kind === 'link-rate' || kind === 'retries';
/** Whether it tells a delay, whose absence is a silence of whoever is asked. */
export const isDelay = (kind: LaneKind) => !isLoad(kind) && !isRadioLane(kind);
/** The target of a load: the router of this network by UPnP IGD, which counts what goes over the line. */
export const IGD_TARGET = 'igd';

/** What stands at the other end, as far as it says whose fault a silence is; `line`: the port that leads to the provider, of a load. */
export const LANE_ROLES = ['gateway', 'inside', 'outside', 'far', 'line'] as const;
export type LaneRole = (typeof LANE_ROLES)[number];

/** Delay to one target over time, as one machine sees it. */
export interface Lane {
  readonly id: string;
  readonly name: string;
  readonly kind: LaneKind;
  /** A name or an address, `HOST:PORT`, a web address, the id of a peer, the name of an interface of its own, or of a load `igd` or `HOST/INDEX` of the interface (RFC 2863). */
  readonly target: string;
  readonly role: LaneRole;
  /** Between two requests, ms. */
  readonly everyMs: number;
  /** What proves the packets of STAMP in its authenticated mode, or the login of SNMP as JSON; absent or null: there is none. */
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
  /** When it was sent, ms since 1970; of a load, when the stretch began that it is the mean of. */
  readonly atMs: number;
  /** Round trip, ms, or load, Mb/s; null: nothing came back. */
  readonly ms: number | null;
  /** The number that the far end gave its answer, where it counts them. */
  readonly reflected?: number | undefined;
}

export const MINUTE_MS = 60_000;
