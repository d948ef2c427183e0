import { ceilingOfEthernet } from '../../ceiling/ethernet-ceiling';
import { linkKindOf, USUAL_MTU_BYTES } from '../../domain/link';
import type { LinkCeiling } from '../../ceiling/link-ceiling-type';
import { planPayloadBps, type Direction, type Plan } from '../../domain/plan';
import { median } from '../../stats/percentile';
import type { FitnessInput } from './fitness-input';
import type { FitnessFacts, FitnessFlag, SlowPort } from './fitness-flag';

/** Segments smaller than this over IPv4 do not come from a plain or PPPoE path (1448, 1440): something wraps them. */
const LEAST_PLAIN_MSS_BYTES = { 4: 1400, 6: 1380 } as const;
/** A figure at or over this share of a ceiling may have been held back by it; well below, something else did. */
const NEAR_CEILING = 0.9;
/** A figure over a ceiling by more than this says that the ceiling is wrong, not the figure. */
const BEYOND_CEILING = 1.03;

const DIRECTIONS: readonly Direction[] = ['down', 'up'];

function tunnelFacts({ conditions, samples }: FitnessInput): FitnessFacts['through-tunnel'] | null {
  if (linkKindOf(conditions.link) === 'tunnel') return { mssBytes: null };
  if (conditions.practice || conditions.sameMachine) return null;
  const mssBytes = median(samples.kernel.flatMap(({ mssBytes: mss }) => mss ?? []));
  if (mssBytes === null || mssBytes >= LEAST_PLAIN_MSS_BYTES[conditions.ipVersion]) return null;
  return { mssBytes };
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
    facts: { measuredBps: beyond.steadyBps, mostBps: most, lineRateBps: ceiling.lineRateBps },
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

/** The port, and the most that the plan promises in the directions that it holds back. */
function slowPort({ lineRateBps, payloadBps }: LinkCeiling, plan: Plan, held: readonly Direction[]): SlowPort {
  return {
    lineRateBps,
    payloadBps,
    promisedBps: Math.max(...held.map((direction) => planPayloadBps(plan, direction))),
  };
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
    flags.push(...forDirections({ code: 'link-below-plan', facts: slowPort(ceiling, plan, held) }, held));
  }
  const tunnel = tunnelFacts(input);
  if (tunnel !== null) flags.push({ code: 'through-tunnel', facts: tunnel });
  else if (link.medium === 'wifi') flags.push({ code: 'over-wifi', facts: null });
  else if (ceiling === null) flags.push({ code: 'link-unknown', facts: null });
  if (peerLinkBps !== null && plan !== null) {
    const peerCeiling = ceilingOfEthernet({
      lineRateBps: peerLinkBps,
      mtuBytes: USUAL_MTU_BYTES,
      ipVersion,
      timestamps: true,
    });
    const held = heldBackBy(peerCeiling.payloadBps, plan, input);
    flags.push(...forDirections({ code: 'peer-below-plan', facts: slowPort(peerCeiling, plan, held) }, held));
  }
  return flags;
}
