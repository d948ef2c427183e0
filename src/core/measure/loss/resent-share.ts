import type { KernelSighting } from '../../domain/sightings';

/** Fewer segments than this tell no share. */
const LEAST_SEGMENTS = 1000;

/**
 * Share of the segments down that the peer's kernel sent again, over all connections of a run, those that turned out to
 * have been needless (DSACK) left out; null where the kernel did not say, or too little was sent.
 */
export function resentShareOf(sightings: readonly KernelSighting[]): number | null {
  const last = new Map(sightings.map((sighting) => [sighting.port, sighting]));
  let segments = 0;
  let resent = 0;
  for (const { bytesAcked, mssBytes, retransmitted, spurious } of last.values()) {
    if (bytesAcked === null || mssBytes === null || retransmitted === null) continue;
    segments += bytesAcked / mssBytes;
    resent += Math.max(0, retransmitted - (spurious ?? 0));
  }
  return segments < LEAST_SEGMENTS ? null : resent / segments;
}
