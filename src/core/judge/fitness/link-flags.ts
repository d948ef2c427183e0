import { ceilingOfEthernet } from '../../ceiling/ethernet-ceiling';
import { linkKindOf, USUAL_MTU_BYTES } from '../../domain/link';
import type { LinkCeiling } from '../../ceiling/link-ceiling-type';
import { planPayloadBps, type Direction, type Plan } from '../../domain/plan';
import { median } from '../../stats/percentile';
import { nominalRateFigure, rateWords } from '../../words/quantity-words';
import type { FitnessInput } from './fitness-input';
import type { FitnessFlag } from './fitness-flag';

/** Segments smaller than this over IPv4 do not come from a plain or PPPoE path (1448, 1440): something wraps them. */
const LEAST_PLAIN_MSS_BYTES = { 4: 1400, 6: 1380 } as const;
/** A figure at or over this share of a ceiling may have been held back by it; well below, something else did. */
const NEAR_CEILING = 0.9;
/** A figure over a ceiling by more than this says that the ceiling is wrong, not the figure. */
const BEYOND_CEILING = 1.03;

const DIRECTIONS: readonly Direction[] = ['down', 'up'];

function tunnelFact({ conditions, samples }: FitnessInput): string | null {
  if (linkKindOf(conditions.link) === 'tunnel') return 'the device was connected through a VPN';
  if (conditions.practice || conditions.sameMachine) return null;
  const mssBytes = median(samples.kernel.flatMap(({ mssBytes: mss }) => mss ?? []));
  if (mssBytes === null || mssBytes >= LEAST_PLAIN_MSS_BYTES[conditions.ipVersion]) return null;
  return `the packets carry ${Math.round(mssBytes)} bytes, fewer than a plain path lets through: something like a VPN is on the way`;
}

/** The most that a link of the kind that was named can ever show, bits per second. */
function mostOf({ rangeBps, payloadBps, lineRateBps }: LinkCeiling): number {
  return rangeBps === null ? payloadBps : lineRateBps;
}

/**
 * What was measured is more than the link that the person named can carry: then the answer is wrong, and no ceiling may
 * be taken from it. Null when all is well.
 */
export function doubtfulLink({ ceiling, down, up, conditions }: FitnessInput): FitnessFlag | null {
  if (ceiling === null || conditions.sameMachine) return null;
  const most = mostOf(ceiling);
  const beyond = [down, up].find(
    (rate) => rate !== null && (rate.intervalBps?.low ?? rate.steadyBps) > BEYOND_CEILING * most,
  );
  if (beyond === undefined || beyond === null) return null;
  return {
    code: 'link-doubtful',
    fact: `${rateWords(beyond.steadyBps)} were measured, more than the ${rateWords(most)} that the link can carry as it was described (${nominalRateFigure(ceiling.lineRateBps)} Mb/s)`,
    nextStep: 'read on the device how it is connected and at what rate, and answer again',
  };
}

/** The directions in which the plan promises more than a ceiling, and what was measured came near that ceiling. */
function heldBackBy(ceilingBps: number, plan: Plan, { down, up }: FitnessInput): Direction[] {
  return DIRECTIONS.filter((direction) => {
    const rate = direction === 'down' ? down : up;
    if (ceilingBps >= planPayloadBps(plan, direction) || rate === null) return false;
    return (rate.intervalBps?.high ?? rate.steadyBps) >= NEAR_CEILING * ceilingBps;
  });
}

/** One flag for both directions, or for the one that it is about. */
function forDirections(flag: FitnessFlag, directions: readonly Direction[]): FitnessFlag[] {
  if (directions.length === 0) return [];
  return [directions.length === 1 ? { ...flag, direction: directions[0] } : flag];
}

/** Whether the device's own link, or the peer's, could hide what the plan gives. Nothing for runs inside the office. */
export function linkFlags(input: FitnessInput): FitnessFlag[] {
  const { conditions, ceiling } = input;
  const { link, plan, reach, peerLinkBps, ipVersion } = conditions;
  const doubt = doubtfulLink(input);
  if (reach === 'local') return doubt === null ? [] : [doubt];
  const flags: FitnessFlag[] = doubt === null ? [] : [doubt];
  if (doubt === null && ceiling !== null && plan !== null && link.medium !== 'wifi') {
    const held = heldBackBy(ceiling.payloadBps, plan, input);
    const promised = held.map((direction) => planPayloadBps(plan, direction));
    const flag: FitnessFlag = {
      code: 'link-below-plan',
      fact: `the cable runs at ${nominalRateFigure(ceiling.lineRateBps)} Mb/s and can show ${rateWords(ceiling.payloadBps)}; the plan is ${nominalRateFigure(Math.max(...promised))}`,
      nextStep: 'swap the cable or the switch port, or test from a device whose port comes up faster',
    };
    flags.push(...forDirections(flag, held));
  }
  const tunnel = tunnelFact(input);
  if (tunnel !== null) flags.push({ code: 'through-tunnel', fact: tunnel, nextStep: 'run again with the VPN off' });
  else if (link.medium === 'wifi')
    flags.push({ code: 'over-wifi', fact: 'the device was on Wi-Fi', nextStep: 'run again over a cable' });
  else if (ceiling === null)
    flags.push({
      code: 'link-unknown',
      fact: 'nobody has said at what rate the link runs',
      nextStep: 'read the negotiated rate on the device and enter it, then run again',
    });
  if (peerLinkBps !== null && plan !== null) {
    const peerCeiling = ceilingOfEthernet({
      lineRateBps: peerLinkBps,
      mtuBytes: USUAL_MTU_BYTES,
      ipVersion,
      timestamps: true,
    });
    const held = heldBackBy(peerCeiling.payloadBps, plan, input);
    const promised = held.map((direction) => planPayloadBps(plan, direction));
    const flag: FitnessFlag = {
      code: 'peer-below-plan',
      fact: `the peer's own port runs at ${nominalRateFigure(peerLinkBps)} Mb/s and can show ${rateWords(peerCeiling.payloadBps)}; the plan is ${nominalRateFigure(Math.max(...promised))}`,
      nextStep: 'use a peer with a faster port',
    };
    flags.push(...forDirections(flag, held));
  }
  return flags;
}
