/** What is held against each other. Rates in bits per second, delays in ms, loss as a share from 0 to 1. */
export const SIDE_QUANTITIES = ['down', 'up', 'idle', 'addedDown', 'addedUp', 'jitter', 'loss'] as const;
export type SideQuantity = (typeof SIDE_QUANTITIES)[number];

/** What a run was made under, those that move its figures most first. */
export const TRAITS = [
  ...(['link', 'reach', 'device', 'peer', 'line', 'plan', 'practice', 'spot', 'profile', 'told'] as const),
  ...(['hours', 'weekdays', 'method'] as const),
] as const;
export type Trait = (typeof TRAITS)[number];

/** One run of a tray. */
export interface SideRun {
  readonly id: string;
  /** The set that it belongs to: runs of one are no witnesses of their own. */
  readonly occasion: string;
  readonly startedAtMs: number;
  /** Null: not measured. */
  readonly figures: Readonly<Record<SideQuantity, number | null>>;
  /** As it is told; what is not known is told as such. */
  readonly traits: Readonly<Record<Trait, string>>;
}

/** A group of runs to be compared. */
export interface Tray {
  readonly name: string;
  readonly runs: readonly SideRun[];
}
