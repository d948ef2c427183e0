import { median } from '../../stats/percentile';
import { shareWords } from '../../words/quantity-words';
import type { FitnessInput } from './fitness-input';
import type { FitnessFlag } from './fitness-flag';

const BUSY_CPU_SHARE = 0.95;
const LATE_LOOP_MS = 30;

/** Whether the peer had other things to do, or is another one than usual. */
export function peerFlags({ samples, conditions }: FitnessInput): FitnessFlag[] {
  const flags: FitnessFlag[] = [];
  const { peerLoad } = samples;
  const others = peerLoad.reduce((most, { otherSessions }) => Math.max(most, otherSessions), 0);
  const cpu = median(peerLoad.flatMap(({ cpuShare }) => cpuShare ?? []));
  const lateMs = median(peerLoad.map(({ loopLateMs }) => loopLateMs));
  const fact =
    others > 0
      ? `the peer served ${others} other ${others === 1 ? 'run' : 'runs'} at the same time`
      : cpu !== null && cpu >= BUSY_CPU_SHARE && !conditions.sameMachine && !conditions.practice
        ? `the peer's processor was ${shareWords(cpu)} busy`
        : lateMs !== null && lateMs >= LATE_LOOP_MS
          ? `the peer was late by ${lateMs.toFixed(0)} ms at its own work`
          : null;
  if (fact !== null)
    flags.push({ code: 'peer-busy', fact, nextStep: 'wait until nothing else runs against this peer, then run again' });
  if (conditions.otherPeerThanUsual)
    flags.push({
      code: 'other-peer-than-usual',
      fact: 'earlier runs of this reach went to another peer',
      nextStep: 'compare only runs against the same peer',
    });
  return flags;
}
