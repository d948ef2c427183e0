import type { Lane } from '@/core';

/** To the worker: ask for these from now on. */
export interface LaneOrder {
  readonly lanes: readonly Lane[];
}

/** From the worker: a request of a lane, by the time of this device's own clock, ms since 1970. */
export interface LaneReport {
  readonly laneId: string;
  readonly sentMs: number;
  readonly ms: number | null;
  readonly key: number;
}
