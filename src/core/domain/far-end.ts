/** What stands at the other end of a run: a peer, an agent of ours that serves as one for it, or a web server of somebody else's. */
export const FAR_ENDS = ['peer', 'agent', 'web'] as const;
export type FarEnd = (typeof FAR_ENDS)[number];

/** A page that is smaller would be asked for again and again, bytes. */
export const SMALLEST_PAGE_BYTES = 1_000_000;

/**
 * How long a page is by the answer to asking for its first byte, bytes: what `Content-Range` says of a part (RFC 9110 §14.4), else
 * `Content-Length`. Null: it does not say.
 */
export function pageBytes(status: number, contentRange: string, contentLength: string): number | null {
  const said = status === 206 ? /\/(\d+)$/.exec(contentRange)?.[1] : contentLength;
  const bytes = Number(said ?? Number.NaN);
  return bytes > 0 && Number.isFinite(bytes) ? bytes : null;
}

/** Pages of a web server that an agent may load, where there is no peer outside yet. */
export interface WebFarEnd {
  /** Absolute addresses of what is loaded; several are loaded side by side. */
  readonly pages: readonly string[];
  /** The most that one run loads of it, bytes. */
  readonly mostBytes: number;
  /** Whom its owner can write to; goes into the User-Agent (RFC 9110 §10.1.5). */
  readonly contact: string;
}
