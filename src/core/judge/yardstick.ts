import type { LinkCeiling } from '../ceiling/link-ceiling-type';
import { planPayloadBps, type Direction, type Plan } from '../domain/plan';
import type { Reach } from '../domain/reach';

/** What a yardstick was made of. `plan`: null where none is known, or where it does not matter. */
export interface YardstickGround {
  readonly reach: Reach;
  readonly direction: Direction;
  readonly plan: Plan | null;
  readonly ceiling: LinkCeiling | null;
}

/** The words that a record of before method 5 was given for it. */
export interface WrittenGround {
  readonly written: readonly string[];
}

/** What a direction of a run is held against, and what it was made of; `yardstickWords` spells it out. */
export type Yardstick = { readonly ground: YardstickGround | WrittenGround } & (
  | { readonly status: 'known'; readonly rateBps: number; readonly source: 'plan' | 'link' }
  | { readonly status: 'unknown' }
);

/**
 * The lower of plan and link ceiling; for a run inside the office the ceiling alone. When neither is known there is
 * no yardstick, and so no verdict. Rates in bits per second.
 */
export function yardstickOf(input: YardstickGround): Yardstick {
  const { reach, direction, ceiling } = input;
  const plan = reach === 'local' ? null : input.plan;
  const ground = { reach, direction, plan, ceiling };
  const candidates = [
    ...(plan === null ? [] : [{ rateBps: planPayloadBps(plan, direction), source: 'plan' as const }]),
    ...(ceiling === null ? [] : [{ rateBps: ceiling.payloadBps, source: 'link' as const }]),
  ];
  const [lowest] = candidates.sort((a, b) => a.rateBps - b.rateBps);
  return lowest === undefined ? { status: 'unknown', ground } : { status: 'known', ...lowest, ground };
}

/** The rate of a yardstick in bits per second; null when there is none. */
export function yardstickBps(yardstick: Yardstick): number | null {
  return yardstick.status === 'known' ? yardstick.rateBps : null;
}
