import type { FitnessFlag } from './fitness-flag';

/** What only the person at the device can know, and says before the run. */
export const TOLD_CONDITIONS = ['backup', 'update', 'others'] as const;
export type ToldCondition = (typeof TOLD_CONDITIONS)[number];

const FACTS: Readonly<Record<ToldCondition, { readonly fact: string; readonly nextStep: string }>> = {
  backup: {
    fact: 'a backup or a sync was running, as was said before the run',
    nextStep: 'let it end, then run again',
  },
  update: { fact: 'an update was being fetched, as was said before the run', nextStep: 'let it end, then run again' },
  others: {
    fact: 'others were using the line, as was said before the run',
    nextStep: 'run again when the line is free, or at night',
  },
};

/** Each of them takes from the line, so a shortfall proves nothing against the provider. */
export function toldFlags(told: readonly ToldCondition[]): FitnessFlag[] {
  return told.map((condition) => ({ code: 'other-traffic', ...FACTS[condition] }));
}
