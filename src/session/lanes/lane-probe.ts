import type { Lane, LaneEcho } from '@/core';

/** What goes on asking for one lane. */
export interface LaneProbe {
  close(): void;
}

/** Hears of each request; `key` tells those apart of which more than one thing is heard. */
export type OnEcho = (echo: LaneEcho, key?: number) => void;

/** `nowMs`: the console's time. */
export type OpenProbe = (lane: Lane, onEcho: OnEcho, nowMs: () => number) => LaneProbe;
