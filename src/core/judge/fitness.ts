import { linkKindOf, type Link } from '../ceiling/link';
import type { LinkCeiling } from '../ceiling/ethernet-ceiling';
import type { RateEstimate } from '../rate/rate-estimate';
import { nominalRateFigure, rateWords } from '../units/quantity-words';
import { planPayloadBps, type Plan } from './plan';
import type { Reach } from './yardstick';

/** What a flag does: `voids` any verdict, `bars` the answer "not met" about the plan, or `weakens` it. */
export type FitnessEffect = 'voids' | 'bars' | 'weakens';

export const FITNESS_EFFECTS = {
  'same-machine': 'voids',
  'link-below-plan': 'bars',
  'over-wifi': 'bars',
  'through-tunnel': 'bars',
  'link-unknown': 'bars',
  unsettled: 'weakens',
  'single-run': 'weakens',
  'page-hidden': 'weakens',
} as const satisfies Record<string, FitnessEffect>;

export type FitnessCode = keyof typeof FITNESS_EFFECTS;

/** One reason why a run is weaker evidence than it looks: the fact that raised it, and what to do. */
export interface FitnessFlag {
  readonly code: FitnessCode;
  readonly fact: string;
  readonly nextStep: string;
}

export interface FitnessInput {
  readonly reach: Reach;
  readonly link: Link;
  readonly ceiling: LinkCeiling | null;
  readonly plan: Plan | null;
  readonly sameMachine: boolean;
  readonly pageHiddenMs: number;
  readonly down: RateEstimate | null;
  readonly up: RateEstimate | null;
}

function linkFlags({ link, ceiling, plan, reach }: FitnessInput): FitnessFlag[] {
  if (reach === 'local') return [];
  const flags: FitnessFlag[] = [];
  if (ceiling !== null && plan !== null) {
    const promised = Math.max(planPayloadBps(plan, 'down'), planPayloadBps(plan, 'up'));
    if (ceiling.payloadBps < promised) {
      flags.push({
        code: 'link-below-plan',
        fact: `the cable runs at ${nominalRateFigure(ceiling.lineRateBps)} Mb/s and can show ${rateWords(ceiling.payloadBps)}; the plan is ${nominalRateFigure(promised)}`,
        nextStep: 'swap the cable or the switch port, or test from a device whose port comes up faster',
      });
    }
  }
  const kind = linkKindOf(link);
  if (kind === 'tunnel')
    flags.push({
      code: 'through-tunnel',
      fact: 'the device was connected through a VPN',
      nextStep: 'run again with the VPN off',
    });
  else if (link.medium === 'wifi')
    flags.push({ code: 'over-wifi', fact: 'the device was on Wi-Fi', nextStep: 'run again over a cable' });
  else if (ceiling === null)
    flags.push({
      code: 'link-unknown',
      fact: 'nobody has said at what rate the link runs',
      nextStep: 'read the negotiated rate on the device and enter it, then run again',
    });
  return flags;
}

/** All that makes this run weaker evidence, the gravest first. */
export function fitnessOf(input: FitnessInput): FitnessFlag[] {
  const flags: FitnessFlag[] = [];
  if (input.sameMachine)
    flags.push({
      code: 'same-machine',
      fact: 'the device and the peer are the same machine, so no cable or air was crossed',
      nextStep: 'open the page on another device and run there',
    });
  flags.push(...linkFlags(input));
  const unsettled = [input.down, input.up].some((estimate) => estimate !== null && !estimate.settled);
  if (unsettled)
    flags.push({
      code: 'unsettled',
      fact: 'the rate still moved by more than 1 % from second to second when the time was up',
      nextStep: 'look for other traffic on the line, then run again',
    });
  if (input.pageHiddenMs > 0)
    flags.push({
      code: 'page-hidden',
      fact: `the page was out of sight for ${(input.pageHiddenMs / 1000).toFixed(1)} s of the run`,
      nextStep: 'keep the page in front while it measures',
    });
  if (input.reach !== 'local')
    flags.push({ code: 'single-run', fact: 'this is one run', nextStep: 'run twice more for a set' });
  return flags;
}
