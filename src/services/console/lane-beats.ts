import type { RateSeconds } from '@/core';
import type { LaneBeat } from '@/wire';

/** What a run that goes on moved in its last seconds. */
export interface RunRates extends RateSeconds {
  readonly runId: string;
  readonly deviceId: string;
  readonly startedAtMs: number;
}

/** What comes of an office just now. */
export type HeardNow =
  | { readonly kind: 'beats'; readonly beats: readonly LaneBeat[] }
  | { readonly kind: 'rates'; readonly rates: RunRates };

type Listener = (heard: HeardNow) => void;

/** What lanes and runs say just now, for whoever looks at them; kept nowhere. */
export class LaneBeats {
  readonly #listeners = new Map<string, Set<Listener>>();

  /** Whether anybody looks at the lanes of an office. */
  isWatched(siteId: string): boolean {
    return (this.#listeners.get(siteId)?.size ?? 0) > 0;
  }

  /** Returns what ends the listening. */
  listen(siteId: string, listener: Listener): () => void {
    const listeners = this.#listeners.get(siteId) ?? new Set();
    this.#listeners.set(siteId, listeners.add(listener));
    return () => listeners.delete(listener);
  }

  tell(siteId: string, heard: HeardNow): void {
    for (const listener of this.#listeners.get(siteId) ?? []) listener(heard);
  }
}
