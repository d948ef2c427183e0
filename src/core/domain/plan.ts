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
  /** What a tunnel between two offices is held against instead of one line's plan: the names of both lines. */
  readonly slowerEnd?: string | undefined;
}

export const USUAL_FULL_FROM = 0.9;

export type Direction = 'down' | 'up';

/** A line rate counts whole Ethernet frames (1518 bytes for 1448 of payload at the usual MTU). */
const PAYLOAD_OF_LINE = 1448 / 1518;

/**
 * What a tunnel from one office to another can give at best: in each direction the slower of what one line sends and the
 * other receives. Payload rates, the tunnel's own headers not taken off. Example: 500/100 to 150/20 → 20 down, 100 up.
 */
export function planThroughTunnel(own: Plan, far: Plan): Plan {
  return {
    ...own,
    downBps: Math.min(planPayloadBps(own, 'down'), planPayloadBps(far, 'up')),
    upBps: Math.min(planPayloadBps(own, 'up'), planPayloadBps(far, 'down')),
    leastDownBps: null,
    leastUpBps: null,
    basis: 'payload',
    slowerEnd: `${own.name} and ${far.name}`,
  };
}

/** The payload rate that the plan promises in one direction, bits per second. */
export function planPayloadBps(plan: Plan, direction: Direction): number {
  const rateBps = direction === 'down' ? plan.downBps : plan.upBps;
  return plan.basis === 'line' ? rateBps * PAYLOAD_OF_LINE : rateBps;
}
