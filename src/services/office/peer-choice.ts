import type { Reach } from '@/core';
import type { StoredPeer } from '@/store';
import type { ConsoleContext } from '../console/console-context';

/** What was usual longer ago than this says nothing about today. */
const USUAL_MS = 30 * 24 * 3600_000;

/**
 * The peer that runs of a site and reach usually go to: the pinned one from the moment it was pinned, else the one that
 * most runs of the last thirty days went to. Null where nothing is usual yet.
 */
export async function usualPeerId(
  { store, wallMs }: ConsoleContext,
  siteId: string,
  reach: Reach,
  peers: readonly StoredPeer[],
): Promise<string | null> {
  const pinned = peers.find((peer) => peer.pinned && peer.reach === reach);
  return pinned?.id ?? store.runs.usualPeerId(siteId, reach, wallMs() - USUAL_MS);
}

/**
 * The peer that runs of a site and reach go to, so that they compare: the pinned one, else the usual one, else the first.
 * Null when there is none.
 */
export async function peerFor(context: ConsoleContext, siteId: string, reach: Reach): Promise<StoredPeer | null> {
  const peers = (await context.store.sites.peersOf(siteId)).filter((peer) => peer.reach === reach);
  const [first = null] = peers;
  if (peers.length < 2) return first;
  const usualId = await usualPeerId(context, siteId, reach, peers);
  return peers.find((peer) => peer.id === usualId) ?? first;
}

/** The peer that a turn goes to: the one that it names, as long as that is there, else the one of its reach. */
export async function peerOfTurn(
  context: ConsoleContext,
  siteId: string,
  { reach, peerId }: { readonly reach: Reach; readonly peerId: string | null },
): Promise<StoredPeer | null> {
  if (peerId === null) return peerFor(context, siteId, reach);
  const peer = await context.store.sites.peer(peerId);
  return peer?.siteId === siteId && peer.reach === reach ? peer : null;
}
