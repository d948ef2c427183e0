import type { FitnessFlag } from './fitness-flag';
import type { FitnessInput } from './fitness-input';

/** What keeps a rate from being one settled figure, by its cause. */
export function settledFlags({ down, up }: FitnessInput): FitnessFlag[] {
  return (
    [
      ['down', down],
      ['up', up],
    ] as const
  ).flatMap(([direction, rate]): FitnessFlag[] => {
    if (rate === null || rate.settled) return [];
    const { steadyBps, meanBps } = rate;
    const range = (rate.rangeBps ?? null) === null ? null : { steadyBps, meanBps };
    return [{ code: 'unsettled', facts: { cause: rate.unsettledBy ?? 'drifting', range }, direction }];
  });
}
