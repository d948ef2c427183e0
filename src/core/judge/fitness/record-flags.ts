import type { FitnessFlag } from './fitness-flag';
import type { FitnessInput } from './fitness-input';
import { incredibleFact } from './credibility';

/** Whether the record itself can be believed, and what it is a record of. */
export function recordFlags({ conditions, samples }: FitnessInput): FitnessFlag[] {
  const { receipt, limitBytes, together = false, sameMachine } = conditions;
  const flags: FitnessFlag[] = [];
  if (sameMachine)
    flags.push({
      code: 'same-machine',
      fact: 'the device and the peer are the same machine, so no cable or air was crossed',
      nextStep: 'open the page on another device and run there',
    });
  // Runs from before there were receipts are taken as they were.
  const incredible = receipt === undefined ? null : incredibleFact(samples, receipt, limitBytes ?? null);
  if (incredible !== null)
    flags.push({
      code: 'not-credible',
      fact: `the samples cannot be: ${incredible}`,
      nextStep: 'run again; if that happens each time, look at the device and at its clock',
    });
  if (receipt === null)
    flags.push({
      code: 'no-receipt',
      fact: 'the peer did not sign for what it moved, so nothing but the device speaks for these figures',
      nextStep: 'check in the set-up that the peer answers, then run again',
    });
  if (together)
    flags.push({
      code: 'shared-on-purpose',
      fact: 'it was started together with other runs on purpose, so each had a share of what there was',
      nextStep: 'read the sum of all of them, or run it alone',
    });
  return flags;
}
