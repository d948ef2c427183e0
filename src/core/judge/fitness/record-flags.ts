import type { FitnessFlag } from './fitness-flag';
import type { FitnessInput } from './fitness-input';
import { incredibleFact } from './credibility';

/** Whether the record itself can be believed, and what it is a record of. */
export function recordFlags({ conditions, samples }: FitnessInput): FitnessFlag[] {
  const { receipt, limitBytes, together = false, sameMachine, farEnd = 'peer' } = conditions;
  const flags: FitnessFlag[] = [];
  if (sameMachine) flags.push({ code: 'same-machine', facts: null });
  // Runs from before there were receipts are taken as they were.
  const incredible = receipt === undefined ? null : incredibleFact(samples, receipt, limitBytes ?? null);
  if (incredible !== null) flags.push({ code: 'not-credible', facts: incredible });
  // A web server signs nothing.
  if (farEnd === 'web') flags.push({ code: 'far-end-not-ours', facts: null });
  else if (receipt === null) flags.push({ code: 'no-receipt', facts: null });
  if (samples.profile === 'single') flags.push({ code: 'single-stream', facts: null });
  if (together) flags.push({ code: 'shared-on-purpose', facts: null });
  return flags;
}
