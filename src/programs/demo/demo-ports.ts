/** Ports of the demo, counted from that of the front door. */
export const DEMO_PORTS = { front: 0, millLine: 1, outsidePeer: 2, quayLine: 3, millTunnel: 4, quayTunnel: 5 } as const;
