import { ceilingOfEthernet } from '../ceiling/ethernet-ceiling';
import { linkKindOf, USUAL_MTU_BYTES } from '../ceiling/link';
import { planPayloadBps, type Plan } from '../judge/plan';
import { median } from '../stats/percentile';
import { nominalRateFigure, rateWords } from '../units/quantity-words';
import type { FitnessInput } from './fitness-input';
import type { FitnessFlag } from './fitness-flag';

/** Segments smaller than this over IPv4 do not come from a plain or PPPoE path (1448, 1440): something wraps them. */
const LEAST_PLAIN_MSS_BYTES = { 4: 1400, 6: 1380 } as const;

function mostPromised(plan: Plan): number {
  return Math.max(planPayloadBps(plan, 'down'), planPayloadBps(plan, 'up'));
}

function tunnelFact({ conditions, samples }: FitnessInput): string | null {
  if (linkKindOf(conditions.link) === 'tunnel') return 'the device was connected through a VPN';
  if (conditions.practice || conditions.sameMachine) return null;
  const mssBytes = median(samples.kernel.flatMap(({ mssBytes: mss }) => mss ?? []));
  if (mssBytes === null || mssBytes >= LEAST_PLAIN_MSS_BYTES[conditions.ipVersion]) return null;
  return `the packets carry ${Math.round(mssBytes)} bytes, fewer than a plain path lets through: something like a VPN is on the way`;
}

/** Whether the device's own link, or the peer's, could hide what the plan gives. Nothing for runs inside the office. */
export function linkFlags(input: FitnessInput): FitnessFlag[] {
  const { conditions, ceiling } = input;
  const { link, plan, reach, peerLinkBps, ipVersion } = conditions;
  if (reach === 'local') return [];
  const flags: FitnessFlag[] = [];
  if (ceiling !== null && plan !== null && ceiling.payloadBps < mostPromised(plan) && link.medium !== 'wifi')
    flags.push({
      code: 'link-below-plan',
      fact: `the cable runs at ${nominalRateFigure(ceiling.lineRateBps)} Mb/s and can show ${rateWords(ceiling.payloadBps)}; the plan is ${nominalRateFigure(mostPromised(plan))}`,
      nextStep: 'swap the cable or the switch port, or test from a device whose port comes up faster',
    });
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
    if (peerCeiling.payloadBps < mostPromised(plan))
      flags.push({
        code: 'peer-below-plan',
        fact: `the peer's own port runs at ${nominalRateFigure(peerLinkBps)} Mb/s and can show ${rateWords(peerCeiling.payloadBps)}; the plan is ${nominalRateFigure(mostPromised(plan))}`,
        nextStep: 'use a peer with a faster port',
      });
  }
  return flags;
}
