import type { Link } from '../domain/link';
import type { ToldCondition } from '../domain/told-condition';
import type { FarEnd } from '../domain/far-end';
import type { Plan } from '../domain/plan';
import type { Reach } from '../domain/reach';
import type { LineUse } from './line-use';
import type { Receipt } from './receipt';

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
  /** Whether it was started at the same instant as others, on purpose: then it had a share. Absent: alone. */
  readonly together?: boolean | undefined;
  /** What the peer signed for when the session ended; null when nothing did. Absent in runs from before there were receipts. */
  readonly receipt?: Receipt | null | undefined;
  /** Bytes that the ticket allowed; absent: not known. */
  readonly limitBytes?: number | undefined;
  /** Absent: a peer of ours. */
  readonly farEnd?: FarEnd | undefined;
  /** How the machine at the other end is connected, where that is an agent; null or absent: not known. */
  readonly farLink?: Link | null | undefined;
  /** What others moved over the line meanwhile, by its router's counters; null or absent: nobody counted. */
  readonly lineUse?: LineUse | null | undefined;
  /** What the person at the device said before the run; absent where nobody was asked. */
  readonly told?: readonly ToldCondition[];
}
