/** What stands at the other end of a run: a peer, an agent of ours that serves as one for it, or a web server of somebody else's. */
export const FAR_ENDS = ['peer', 'agent', 'web'] as const;
export type FarEnd = (typeof FAR_ENDS)[number];

/** A page that is smaller would be asked for again and again, bytes. */
export const SMALLEST_PAGE_BYTES = 1_000_000;

/** Pages of a web server that an agent may load, where there is no peer outside yet. */
export interface WebFarEnd {
  /** Absolute addresses of what is loaded; several are loaded side by side. */
  readonly pages: readonly string[];
  /** The most that one run loads of it, bytes. */
  readonly mostBytes: number;
  /** Whom its owner can write to; goes into the User-Agent (RFC 9110 §10.1.5). */
  readonly contact: string;
}
