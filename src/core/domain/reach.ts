/** How far a run goes: *between* is from one machine of ours to another that serves as the far end for it. */
export const REACHES = ['local', 'internet', 'tunnel', 'between'] as const;
export type Reach = (typeof REACHES)[number];

/** Those that a peer can be set up for, and that anybody can be asked for without naming the other end. */
export const PEER_REACHES = ['local', 'internet', 'tunnel'] as const satisfies readonly Reach[];
export type PeerReach = (typeof PEER_REACHES)[number];
