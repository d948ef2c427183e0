/** What the contract with the provider promises. Rates in bits per second. */
export interface Plan {
  readonly name: string;
  readonly downBps: number;
  readonly upBps: number;
  /** Least rates the contract names, if it does. */
  readonly leastDownBps: number | null;
  readonly leastUpBps: number | null;
  /** Whether the contract's rates are payload or what is on the line, headers included. */
  readonly basis: 'payload' | 'line';
  /** Share of the yardstick from which a result is full. */
  readonly fullFrom: number;
}

export const USUAL_FULL_FROM = 0.9;

export type Direction = 'down' | 'up';

/** A line rate counts whole Ethernet frames (1518 bytes for 1448 of payload at the usual MTU). */
const PAYLOAD_OF_LINE = 1448 / 1518;

/** The payload rate that the plan promises in one direction, bits per second. */
export function planPayloadBps(plan: Plan, direction: Direction): number {
  const rateBps = direction === 'down' ? plan.downBps : plan.upBps;
  return plan.basis === 'line' ? rateBps * PAYLOAD_OF_LINE : rateBps;
}
