import type { Reach } from '../domain/reach';
import type { FitnessCode } from '../judge/fitness/fitness-flag';

/** One occasion: the runs of a set, as evidence of the path that they took. Rates in bits per second, delays in ms. */
export interface Occasion {
  /** The newest last. */
  readonly runIds: readonly string[];
  readonly deviceId: string;
  readonly reach: Reach;
  readonly startedAtMs: number;
  /** Hour of the day at the office, 0 to 23. */
  readonly hour: number;
  /** Ids of the segments, from the device outwards. */
  readonly path: readonly string[];
  readonly down: OccasionRate | null;
  readonly up: OccasionRate | null;
  /** What load added to the delay, by direction; null: not measured. */
  readonly addedDownMs: number | null;
  readonly addedUpMs: number | null;
  /** Share of what was sent down that had to be sent again; null: nobody counted. */
  readonly resentShare: number | null;
  readonly flags: readonly FitnessCode[];
}

export interface OccasionRate {
  readonly medianBps: number;
  /** Highest lower end of a 95 % interval among its runs: what the whole path has carried. */
  readonly provenBps: number;
  readonly provenBy: string;
  /** Robust spread of its runs as a share of the median; null: too few to tell. */
  readonly spread: number | null;
}

/** Flags with which a run still proves what it carried, and accuses nobody of what it did not. */
const ACCUSES_NOBODY: readonly FitnessCode[] = [
  ...(['other-traffic', 'peer-busy', 'link-doubtful', 'through-tunnel', 'page-hidden', 'shared-on-purpose'] as const),
  ...(['far-end-not-ours', 'line-in-use'] as const),
];

export function mayAccuse({ flags }: Pick<Occasion, 'flags'>): boolean {
  return !flags.some((flag) => ACCUSES_NOBODY.includes(flag));
}
