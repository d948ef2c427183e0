/** A device that waits has a request open, or comes back at once; after so long without one its turn is given back, ms. */
export const ASKS_WITHIN_MS = 10_000;

/**
 * Which turns are waited for by somebody who is there, in memory: a device that waits costs no writes. Forgotten with the
 * process; after a restart everybody gets the usual time to come back.
 */
export class WaitingDevices {
  readonly #seenMs = new Map<string, number>();
  readonly #held = new Map<string, number>();

  /** Somebody has asked for this turn just now. */
  note(turnId: string, nowMs: number): void {
    this.#seenMs.set(turnId, nowMs);
  }

  /** A request for this turn is held open from now on; returns what ends that. */
  hold(turnId: string, nowMs: () => number): () => void {
    this.#held.set(turnId, (this.#held.get(turnId) ?? 0) + 1);
    return () => {
      const left = (this.#held.get(turnId) ?? 1) - 1;
      if (left === 0) this.#held.delete(turnId);
      else this.#held.set(turnId, left);
      this.note(turnId, nowMs());
    };
  }

  isHere(turnId: string, nowMs: number): boolean {
    return this.#held.has(turnId) || nowMs - (this.#seenMs.get(turnId) ?? -Infinity) <= ASKS_WITHIN_MS;
  }

  forget(turnId: string): void {
    this.#seenMs.delete(turnId);
  }
}
