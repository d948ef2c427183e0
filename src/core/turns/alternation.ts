/** Which of the two is measured: the first, or the second. */
export type Side = 0 | 1;

/** How far turn and turn about has come. */
export interface AlternationState {
  /** Runs of each side that are wanted. */
  readonly times: number;
  /** Whether somebody has to change something between one side and the other. */
  readonly byHand: boolean;
  /** Ids of the runs that came to their end, by side. */
  readonly runs: readonly [readonly string[], readonly string[]];
  /** The side that was last said to be ready; null: none yet. Only where hands are needed. */
  readonly readyFor: Side | null;
}

export type AlternationStep =
  | { readonly kind: 'done' }
  /** Somebody has to make this side ready, and say so. */
  | { readonly kind: 'hands'; readonly side: Side }
  | { readonly kind: 'run'; readonly side: Side };

/** A, B, B, A: where hands are needed this takes half as many changes as A, B, A, B, and a drift weighs on both alike. */
const BY_HAND: readonly Side[] = [0, 1, 1, 0];

/** The side of each run, from the first on. */
export function sideAt(place: number, byHand: boolean): Side {
  return byHand ? BY_HAND[place % BY_HAND.length]! : ((place % 2) as Side);
}

/**
 * What comes next. Runs alternate, so that a line that drifts weighs on both sides alike (comparing.md, "Is the comparison
 * fair?"): A B A B … by itself, A B B A … by hand.
 */
export function nextStep({ times, byHand, runs, readyFor }: AlternationState): AlternationStep {
  const made = runs[0].length + runs[1].length;
  if (made >= 2 * times) return { kind: 'done' };
  const side = sideAt(made, byHand);
  return byHand && readyFor !== side ? { kind: 'hands', side } : { kind: 'run', side };
}
