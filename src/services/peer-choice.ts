import type { Reach } from '@/core';
import type { StoredPeer } from '@/store';
import type { ConsoleContext } from './console-context';

/**
 * The peer that runs of a site and reach go to, so that they compare: the pinned one, else the one that most runs went
 * to, else the first. Null when there is none.
 */
export async function peerFor(context: ConsoleContext, siteId: string, reach: Reach): Promise<StoredPeer | null> {
  const { sites, runs } = context.store;
  const peers = (await sites.peersOf(siteId)).filter((peer) => peer.reach === reach);
  const [first = null] = peers;
  if (peers.length < 2) return first;
  const pinned = peers.find((peer) => peer.pinned);
  if (pinned !== undefined) return pinned;
  const usualId = await runs.usualPeerId(siteId, reach);
  return peers.find((peer) => peer.id === usualId) ?? first;
}
