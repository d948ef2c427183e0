/** How many wrong tries one address has, and for how long they count. */
const MOST_TRIES = 10;
const WINDOW_MS = 5 * 60_000;
/** Addresses remembered at once: a flood of made-up ones must not fill the memory. */
const MOST_ADDRESSES = 10_000;

/** Counts wrong codes and passphrases by address, so that nobody can guess one. Forgotten when the program restarts. */
export class TryLimit {
  readonly #failures = new Map<string, number[]>();

  /** Seconds until this address may try again; 0 when it may now. */
  waitSeconds(address: string | null, nowMs: number): number {
    const recent = this.#recent(address, nowMs);
    if (recent.length < MOST_TRIES) return 0;
    return Math.ceil((recent[recent.length - MOST_TRIES]! + WINDOW_MS - nowMs) / 1000);
  }

  failed(address: string | null, nowMs: number): void {
    const key = address ?? 'unknown';
    const recent = [...this.#recent(address, nowMs), nowMs].slice(-MOST_TRIES);
    this.#failures.delete(key);
    if (this.#failures.size >= MOST_ADDRESSES) this.#failures.delete(this.#failures.keys().next().value!);
    this.#failures.set(key, recent);
  }

  #recent(address: string | null, nowMs: number): number[] {
    return (this.#failures.get(address ?? 'unknown') ?? []).filter((atMs) => nowMs - atMs < WINDOW_MS);
  }
}
