/** What a flag does: `voids` any verdict, `bars` the answer "not met" about the plan, or `weakens` it. */
export type FitnessEffect = 'voids' | 'bars' | 'weakens';

/** The registry of fitness flags; the table in docs/measurement.md is held against it. */
export const FITNESS_EFFECTS = {
  'same-machine': 'voids',
  'link-below-plan': 'bars',
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
}
