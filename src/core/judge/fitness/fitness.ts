import { deviceFlags } from './device-flags';
import type { FitnessFlag } from './fitness-flag';
import type { FitnessInput } from './fitness-input';
import { linkFlags } from './link-flags';
import { peerFlags } from './peer-flags';
import { recordFlags } from './record-flags';
import { settledFlags } from './settled-flags';
import { toldFlags } from './told-condition';

/** All that makes this run weaker evidence, the gravest first. */
export function fitnessOf(input: FitnessInput): FitnessFlag[] {
  const { conditions, down, up } = input;
  const flags = [
    ...recordFlags(input),
    ...linkFlags(input),
    ...deviceFlags(input),
    ...peerFlags(input),
    ...toldFlags(conditions.told ?? []),
    ...settledFlags(input),
  ];
  if (conditions.reach !== 'local' && (down !== null || up !== null))
    flags.push({ code: 'single-run', fact: 'this is one run', nextStep: 'run twice more for a set' });
  return flags;
}
