import type { SideQuantity } from '../judge/compare/side-run';

/** What one occasion gave: the median of its runs. Unit as the quantity's. */
export interface TimedValue {
  readonly startedAtMs: number;
  readonly value: number;
}

/** How values are held against each other: rates as ratios, delays and shares of loss as differences. */
export type SeriesKind = 'rate' | 'delay' | 'loss';

export function seriesKindOf(quantity: SideQuantity): SeriesKind {
  if (quantity === 'down' || quantity === 'up') return 'rate';
  return quantity === 'loss' ? 'loss' : 'delay';
}

/** What is too little to be told: a share of a rate, ms of a delay, percentage points of loss. */
export const LEAST_TOLD = { rate: 0.05, delay: 5, loss: 0.005 } as const satisfies Record<SeriesKind, number>;
