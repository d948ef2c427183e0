import type { Reach } from '@/core';
import type { StoredPeer, StoredTurn } from '@/store';
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

/** Pages of a web server are loaded by agents alone, and not by those of before: a browser is not let. */
export async function canLoadWeb({ store }: ConsoleContext, deviceId: string): Promise<boolean> {
  return (await store.agents.byDevice(deviceId))?.can.includes('web') === true;
}

/** The same for many devices, which is asked only where an office has a web server as a far end. */
export function webLoaders(context: ConsoleContext): (siteId: string, deviceId: string) => Promise<boolean> {
  const offices = new Map<string, Promise<boolean>>();
  return async (siteId, deviceId) => {
    let hasWeb = offices.get(siteId);
    if (hasWeb === undefined) {
      hasWeb = context.store.sites.peersOf(siteId).then((peers) => peers.some(({ web }) => web !== null));
      offices.set(siteId, hasWeb);
    }
    return (await hasWeb) && canLoadWeb(context, deviceId);
  };
}

/**
 * The peer that runs of a site and reach go to, so that they compare: the pinned one, else the usual one, else the first.
 * Null when there is none. `loadsWeb`: whether whoever measures can load a web server.
 */
export async function peerFor(
  context: ConsoleContext,
  siteId: string,
  reach: Reach,
  loadsWeb: boolean,
): Promise<StoredPeer | null> {
  const all = (await context.store.sites.peersOf(siteId)).filter((peer) => peer.reach === reach);
  const ours = all.filter(({ web }) => web === null);
  // A web server does only until there is a peer, or where somebody wants it so.
  const peers = ours.length === 0 || (loadsWeb && all.some(({ web, pinned }) => web !== null && pinned)) ? all : ours;
  const [first = null] = peers;
  if (peers.length < 2) return first;
  const usualId = await usualPeerId(context, siteId, reach, peers);
  return peers.find((peer) => peer.id === usualId) ?? first;
}

/** The peer that a turn goes to: the one that it names, as long as that is there, else the one of its reach. */
export async function peerOfTurn(
  context: ConsoleContext,
  siteId: string,
  { reach, peerId, loadsWeb }: Pick<StoredTurn, 'reach' | 'peerId'> & { readonly loadsWeb: boolean },
): Promise<StoredPeer | null> {
  if (peerId === null) return peerFor(context, siteId, reach, loadsWeb);
  const peer = await context.store.sites.peer(peerId);
  return peer?.siteId === siteId && peer.reach === reach ? peer : null;
}
