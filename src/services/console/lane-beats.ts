import type { LaneBeat } from '@/wire';

type Listener = (beats: readonly LaneBeat[]) => void;

/** What lanes say just now, for whoever looks at them; kept nowhere. */
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

  tell(siteId: string, beats: readonly LaneBeat[]): void {
    for (const listener of this.#listeners.get(siteId) ?? []) listener(beats);
  }
}
