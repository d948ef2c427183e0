export const PHASES = ['idle', 'download', 'settle', 'upload', 'both', 'paced'] as const;
export type Phase = (typeof PHASES)[number];

/** When a phase began and ended, ms on the run's clock. */
export interface PhaseSpan {
  readonly phase: Phase;
  readonly fromMs: number;
  readonly toMs: number;
}
