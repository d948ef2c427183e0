import type { DirectionReceipt } from '@/core';

interface StreamCount {
  bytes: number;
  firstMs: number;
  lastMs: number;
}

/** What one direction of a session moved so far, and over how long. */
export class DirectionCount {
  readonly #streams = new Map<number, StreamCount>();
  #open = 0;
  #openedMs = 0;
  #activeMs = 0;
  #lastMs = 0;

  constructor(private readonly monotonicMs: () => number) {}

  /** A request of a stream begins; returns what ends it. */
  begin(stream: number): () => void {
    const nowMs = this.monotonicMs();
    if (this.#open === 0) this.#openedMs = this.#lastMs = nowMs;
    this.#open += 1;
    if (!this.#streams.has(stream)) this.#streams.set(stream, { bytes: 0, firstMs: nowMs, lastMs: nowMs });
    let ended = false;
    return () => {
      if (ended) return;
      ended = true;
      this.#open -= 1;
      // Until the last bytes: how long the connection then took to be closed is no load.
      if (this.#open === 0) this.#activeMs += this.#lastMs - this.#openedMs;
    };
  }

  count(stream: number, bytes: number): void {
    const counted = this.#streams.get(stream);
    if (counted === undefined) return;
    counted.bytes += bytes;
    counted.lastMs = this.#lastMs = this.monotonicMs();
  }

  receipt(): DirectionReceipt {
    const streams = [...this.#streams].map(([stream, counted]) => ({ stream, ...counted }));
    const runningMs = this.#open > 0 ? this.#lastMs - this.#openedMs : 0;
    return {
      bytes: streams.reduce((sum, { bytes }) => sum + bytes, 0),
      activeMs: this.#activeMs + runningMs,
      streams,
    };
  }
}

/** What a session saw besides its bytes. */
export interface SessionSightings {
  echoes: number;
  sameMachine: boolean;
  ipVersion: 4 | 6;
  minRttMs: number | null;
  otherSessions: number;
  /** Data channels that were offered; not part of the receipt. */
  offers: number;
  /** Ports of the client that were knocked at. */
  knocks: number;
}

export const NOTHING_SEEN: Readonly<SessionSightings> = {
  ...{ echoes: 0, sameMachine: false, ipVersion: 4, minRttMs: null, otherSessions: 0, offers: 0, knocks: 0 },
};
