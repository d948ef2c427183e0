import { deviceFlags } from './device-flags';
import type { FitnessFlag } from './fitness-flag';
import type { FitnessInput } from './fitness-input';
import { linkFlags } from './link-flags';
import { peerFlags } from './peer-flags';
import { toldFlags } from './told-condition';

/** All that makes this run weaker evidence, the gravest first. */
export function fitnessOf(input: FitnessInput): FitnessFlag[] {
  const { conditions, down, up } = input;
  const flags: FitnessFlag[] = [];
  if (conditions.sameMachine)
    flags.push({
      code: 'same-machine',
      fact: 'the device and the peer are the same machine, so no cable or air was crossed',
      nextStep: 'open the page on another device and run there',
    });
  flags.push(...linkFlags(input), ...deviceFlags(input), ...peerFlags(input), ...toldFlags(conditions.told ?? []));
  if ([down, up].some((estimate) => estimate !== null && !estimate.settled))
    flags.push({
      code: 'unsettled',
      fact: 'the rate still moved by more than 1 % from second to second when the time was up',
      nextStep: 'look for other traffic on the line, then run again',
    });
  if (conditions.reach !== 'local' && (down !== null || up !== null))
    flags.push({ code: 'single-run', fact: 'this is one run', nextStep: 'run twice more for a set' });
  return flags;
}
