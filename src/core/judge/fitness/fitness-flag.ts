import type { Direction } from '../../domain/plan';

/**
 * What a flag does: `voids` any verdict; `unproven`: says nothing about the plan either way; `bars` the answer "not met"
 * about the plan; or `weakens` it.
 */
export type FitnessEffect = 'voids' | 'unproven' | 'bars' | 'weakens';

/** The registry of fitness flags; the table in docs/measurement.md is held against it. */
export const FITNESS_EFFECTS = {
  'same-machine': 'voids',
  'not-credible': 'voids',
  'shared-on-purpose': 'voids',
  'no-receipt': 'unproven',
  'link-below-plan': 'bars',
  'link-doubtful': 'bars',
  'over-wifi': 'bars',
  'through-tunnel': 'bars',
  'link-unknown': 'bars',
  'device-limited': 'bars',
  'peer-busy': 'bars',
  'peer-below-plan': 'bars',
  'other-traffic': 'bars',
  unsettled: 'weakens',
  'single-run': 'weakens',
  'other-peer-than-usual': 'weakens',
  'page-hidden': 'weakens',
  'clock-jump': 'weakens',
  'power-saving': 'weakens',
} as const satisfies Record<string, FitnessEffect>;

export type FitnessCode = keyof typeof FITNESS_EFFECTS;

/** One reason why a run is weaker evidence than it looks: the fact that raised it, and what to do. */
export interface FitnessFlag {
  readonly code: FitnessCode;
  readonly fact: string;
  readonly nextStep: string;
  /** The direction that it holds for; absent: both. */
  readonly direction?: Direction | undefined;
}

/** The flags that hold for a direction. */
export function flagsFor(flags: readonly FitnessFlag[], direction: Direction): FitnessCode[] {
  return flags.filter((flag) => (flag.direction ?? direction) === direction).map(({ code }) => code);
}
