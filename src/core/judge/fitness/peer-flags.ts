import { median } from '../../stats/percentile';
import type { FitnessInput } from './fitness-input';
import type { FitnessFacts, FitnessFlag } from './fitness-flag';

const BUSY_CPU_SHARE = 0.95;
const LATE_LOOP_MS = 30;

/** Whether the peer had other things to do, or is another one than usual. */
export function peerFlags({ samples, conditions }: FitnessInput): FitnessFlag[] {
  const flags: FitnessFlag[] = [];
  const { peerLoad } = samples;
  const others = peerLoad.reduce((most, { otherSessions }) => Math.max(most, otherSessions), 0);
  const cpu = median(peerLoad.flatMap(({ cpuShare }) => cpuShare ?? []));
  const lateMs = median(peerLoad.map(({ loopLateMs }) => loopLateMs));
  const facts: FitnessFacts['peer-busy'] | null =
    others > 0
      ? { by: 'others', count: others }
      : cpu !== null && cpu >= BUSY_CPU_SHARE && !conditions.sameMachine && !conditions.practice
        ? { by: 'processor', share: cpu }
        : lateMs !== null && lateMs >= LATE_LOOP_MS
          ? { by: 'lateness', lateMs }
          : null;
  if (facts !== null) flags.push({ code: 'peer-busy', facts });
  if (conditions.otherPeerThanUsual) flags.push({ code: 'other-peer-than-usual', facts: null });
  return flags;
}
