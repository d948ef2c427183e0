import type { Direction } from '../../domain/plan';
import type { FitnessInput } from './fitness-input';
import type { FitnessFlag } from './fitness-flag';

/** Less than these beside what was measured is what the counters themselves leave open: frames, acknowledgements, lost packets. */
const OTHERS_SHARE = 0.05;
/** What a tunnel wraps around each packet (60 to 110 bytes of some 1400, for each acknowledgement as well) is not told from what others move. */
const OTHERS_SHARE_IN_TUNNEL = 0.15;
const LEAST_OTHERS_BPS = 1e6;

/** Whether others moved enough over the line that a shortfall may be theirs, direction by direction. */
export function lineFlags({ conditions, down, up }: FitnessInput): FitnessFlag[] {
  const { lineUse, reach } = conditions;
  if (!lineUse || reach === 'local') return [];
  const seconds = (lineUse.untilMs - lineUse.fromMs) / 1000;
  const share = reach === 'tunnel' ? OTHERS_SHARE_IN_TUNNEL : OTHERS_SHARE;
  const flagOf = (direction: Direction, othersBps: number | null, measuredBps: number | null): FitnessFlag[] => {
    if (othersBps === null || othersBps < LEAST_OTHERS_BPS || othersBps < share * (measuredBps ?? 0)) return [];
    return [{ code: 'line-in-use', direction, facts: { othersBps, measuredBps, seconds } }];
  };
  return [
    ...flagOf('down', lineUse.downBps, down?.meanBps ?? null),
    ...flagOf('up', lineUse.upBps, up?.meanBps ?? null),
  ];
}
