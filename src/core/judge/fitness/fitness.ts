import { deviceFlags } from './device-flags';
import type { FitnessFlag } from './fitness-flag';
import type { FitnessInput } from './fitness-input';
import { lineFlags } from './line-flags';
import { linkFlags } from './link-flags';
import { peerFlags } from './peer-flags';
import { recordFlags } from './record-flags';
import { settledFlags } from './settled-flags';

/** All that makes this run weaker evidence, the gravest first. */
export function fitnessOf(input: FitnessInput): FitnessFlag[] {
  const { conditions, down, up } = input;
  const flags = [
    ...recordFlags(input),
    ...linkFlags(input),
    ...deviceFlags(input),
    ...lineFlags(input),
    ...peerFlags(input),
    // Each of them takes from the line, so a shortfall proves nothing against the provider.
    ...(conditions.told ?? []).map((condition): FitnessFlag => ({
      code: 'other-traffic',
      facts: { seen: 'told', condition },
    })),
    ...settledFlags(input),
  ];
  if (conditions.reach !== 'local' && (down !== null || up !== null)) flags.push({ code: 'single-run', facts: null });
  return flags;
}
