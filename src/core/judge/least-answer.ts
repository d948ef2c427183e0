import { planPayloadBps, type Direction, type Plan } from '../domain/plan';
import type { JudgedRate } from './verdict';

/** A direction held against the two figures of a contract: what it advertises, and the least that it names. */
export interface LeastAnswer {
  /** `above`: at or over the tolerance of the advertised rate; `between`; `below` the least that the contract names. */
  readonly word: 'above' | 'between' | 'below';
  readonly leastBps: number;
  /** The interval straddles the least, so it could be either. */
  readonly onTheEdge: boolean;
}

/** Null where the contract names no least rate, or nothing was measured. Rates in bits per second of payload. */
export function leastAnswerOf(rate: JudgedRate | null, plan: Plan | null, direction: Direction): LeastAnswer | null {
  const least = plan === null ? null : direction === 'down' ? plan.leastDownBps : plan.leastUpBps;
  if (rate === null || plan === null || least === null) return null;
  const advertisedBps = planPayloadBps(plan, direction);
  // The least is promised on the same basis as the rest.
  const nominal = direction === 'down' ? plan.downBps : plan.upBps;
  const leastBps = (least * advertisedBps) / nominal;
  const { low, high } = rate.intervalBps ?? { low: rate.steadyBps, high: rate.steadyBps };
  const word =
    rate.steadyBps >= plan.fullFrom * advertisedBps ? 'above' : rate.steadyBps >= leastBps ? 'between' : 'below';
  return { word, leastBps, onTheEdge: low < leastBps && high >= leastBps };
}
