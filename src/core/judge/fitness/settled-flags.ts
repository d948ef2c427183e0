import type { UnsettledCause } from '../../measure/rate/rate-estimate';
import { rateWords } from '../../words/quantity-words';
import type { FitnessFlag } from './fitness-flag';
import type { FitnessInput } from './fitness-input';

const CAUSES: Readonly<Record<UnsettledCause, Pick<FitnessFlag, 'fact' | 'nextStep'>>> = {
  drifting: {
    fact: 'the rate still moved by more than 1 % from second to second when the time was up',
    nextStep: 'look for other traffic on the line, then run again',
  },
  'changed-level': {
    fact: 'the rate changed to another level during the run and had not held it for three seconds',
    nextStep: 'run again with a longer profile, to see which level lasts',
  },
  'too-short': {
    fact: 'the direction ended before enough was counted to tell whether it was steady',
    nextStep: 'run again with a longer profile',
  },
  'too-few-windows': {
    fact: 'too little was left after the last change to hold three means side by side',
    nextStep: 'run again with a longer profile',
  },
};

/** What keeps a rate from being one settled figure, by its cause. */
export function settledFlags({ down, up }: FitnessInput): FitnessFlag[] {
  return (
    [
      ['down', down],
      ['up', up],
    ] as const
  ).flatMap(([direction, rate]): FitnessFlag[] => {
    if (rate === null || rate.settled) return [];
    const range = rate.rangeBps ?? null;
    const { fact, nextStep } = CAUSES[rate.unsettledBy ?? 'drifting'];
    if (range === null) return [{ code: 'unsettled', fact, nextStep, direction }];
    const apart = `what arrived steadily (${rateWords(rate.steadyBps)}) and what arrived in all (${rateWords(rate.meanBps)}) lie more than a tenth apart`;
    return [{ code: 'unsettled', fact: `${apart}: ${fact}`, nextStep, direction }];
  });
}
