import type { Link } from '../ceiling/link';
import type { ToldCondition } from '../fitness/told-condition';
import type { Plan } from '../judge/plan';
import type { Reach } from '../judge/yardstick';

/** What was the case when the run was made. */
export interface RunConditions {
  readonly reach: Reach;
  readonly link: Link;
  /** The plan in force on that day; null when none is known. */
  readonly plan: Plan | null;
  /** Whether the peer saw the client come from its own machine, with no practice line between. */
  readonly sameMachine: boolean;
  /** Whether a practice line stood in for the provider's line. */
  readonly practice: boolean;
  readonly ipVersion: 4 | 6;
  readonly pageHiddenMs: number;
  /** Rate of the peer's own network port, bits per second; null when the peer does not know. */
  readonly peerLinkBps: number | null;
  /** Whether earlier runs of this site and reach went to another peer. */
  readonly otherPeerThanUsual: boolean;
  /** What the person at the device said before the run; absent where nobody was asked. */
  readonly told?: readonly ToldCondition[];
}
