import type { LinkCeiling } from '../ceiling/link-ceiling-type';
import { nominalRateFigure, rateFigure, rateWords } from '../words/quantity-words';
import { planPayloadBps, type Direction, type Plan } from '../domain/plan';

/** How far a run goes. */
export const REACHES = ['local', 'internet', 'tunnel'] as const;
export type Reach = (typeof REACHES)[number];

/** What a direction of a run is held against, with the arithmetic in words. */
export type Yardstick =
  | {
      readonly status: 'known';
      readonly rateBps: number;
      readonly source: 'plan' | 'link';
      readonly arithmetic: readonly string[];
    }
  | { readonly status: 'unknown'; readonly arithmetic: readonly string[] };

export interface YardstickInput {
  readonly reach: Reach;
  readonly direction: Direction;
  readonly plan: Plan | null;
  readonly ceiling: LinkCeiling | null;
}

function planWords(plan: Plan, direction: Direction): string {
  const nominal = nominalRateFigure(direction === 'down' ? plan.downBps : plan.upBps);
  if (plan.slowerEnd !== undefined)
    return `between ${plan.slowerEnd} the slower end gives ${nominal} Mb/s ${direction}`;
  if (plan.basis === 'payload') return `the plan says ${nominal} Mb/s`;
  const payload = rateFigure(planPayloadBps(plan, direction));
  return `the plan says ${nominal} Mb/s on the line × 1448/1518 = ${payload} Mb/s of payload`;
}

/**
 * The lower of plan and link ceiling; for a run inside the office the ceiling alone. When neither is known there is
 * no yardstick, and so no verdict. Rates in bits per second.
 */
export function yardstickOf({ reach, direction, plan, ceiling }: YardstickInput): Yardstick {
  const link = ceiling === null ? null : { rateBps: ceiling.payloadBps, words: ceiling.words };
  const promised =
    plan === null || reach === 'local'
      ? null
      : { rateBps: planPayloadBps(plan, direction), words: planWords(plan, direction) };
  const unknownLink = 'what the link can carry is not known';

  if (link !== null && promised !== null) {
    const source = link.rateBps < promised.rateBps ? 'link' : 'plan';
    const rateBps = Math.min(link.rateBps, promised.rateBps);
    const named = source === 'plan' && plan?.slowerEnd !== undefined ? 'slower end of the tunnel' : source;
    const reason = `${rateWords(rateBps)} is the lower, so the ${named} is the yardstick`;
    return { status: 'known', rateBps, source, arithmetic: [link.words, promised.words, reason] };
  }
  if (promised !== null) {
    const reason = `so the plan's ${rateWords(promised.rateBps)} is the yardstick`;
    return {
      status: 'known',
      rateBps: promised.rateBps,
      source: 'plan',
      arithmetic: [unknownLink, promised.words, reason],
    };
  }
  if (link !== null) {
    const reason = reach === 'local' ? 'inside the office the plan does not matter' : 'no plan is known for this line';
    return { status: 'known', rateBps: link.rateBps, source: 'link', arithmetic: [link.words, reason] };
  }
  const noPlan = reach === 'local' ? 'inside the office the plan does not matter' : 'no plan is known for this line';
  return { status: 'unknown', arithmetic: [unknownLink, noPlan] };
}

/** The rate of a yardstick in bits per second; null when there is none. */
export function yardstickBps(yardstick: Yardstick): number | null {
  return yardstick.status === 'known' ? yardstick.rateBps : null;
}
