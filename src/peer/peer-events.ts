/** What happens at a peer and its door, for whoever writes it down: one event, one line. Times in ms, sizes in bytes. */
export type PeerEvent =
  | { readonly kind: 'request'; readonly request: RequestEvent }
  /** The console did not answer a request. */
  | { readonly kind: 'console-away'; readonly id: string }
  | { readonly kind: 'session-opened'; readonly run: string; readonly session: string; readonly address: string | null }
  | {
      readonly kind: 'session-ended';
      readonly run: string;
      readonly session: string;
      readonly tookMs: number;
      readonly downBytes: number;
      readonly upBytes: number;
    }
  | { readonly kind: 'ticket-refused'; readonly code: string; readonly address: string | null };

/** A request that was answered, or given up. */
export interface RequestEvent {
  readonly id: string;
  readonly method: string;
  /** Without what proves something: codes, tokens, queries. */
  readonly path: string;
  readonly status: number;
  readonly tookMs: number;
  readonly address: string | null;
}

export type OnPeerEvent = (event: PeerEvent) => void;

/** Paths whose next part lets somebody in. */
const PROVING = /^\/(j|s|here|welcome|passphrase)\/.*/;

/** A path as it may be written down: what lets somebody in is left out of it. */
export function loggedPath(path: string): string {
  return path.replace(PROVING, '/$1/…').slice(0, 200);
}
