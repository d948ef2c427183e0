import { NEW_PEER, type StoredPeer } from '@/store';
import { type ConsoleFaultCode, done, failed, type Outcome, type PeerForm } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

export async function savePeer(
  context: ConsoleContext,
  siteId: string,
  peerId: string | null,
  form: PeerForm,
): Promise<Outcome<StoredPeer, ConsoleFaultCode>> {
  const { sites } = context.store;
  if ((await sites.byId(siteId)) === null) return failed('site-missing');
  const peers = await sites.peersOf(siteId);
  const existing = peers.find((peer) => peer.id === peerId);
  const namesake = peers.find((peer) => peer.name === form.name);
  if (namesake !== undefined && namesake.id !== peerId) return failed('name-taken', { what: 'peer', name: form.name });
  const address = form.address.length > 1 ? form.address.replace(/\/$/, '') : form.address;
  // Another address is another place: what was known of the peer there no longer holds.
  const same = existing?.address === address ? existing : undefined;
  const peer: StoredPeer = {
    ...NEW_PEER,
    ...{ web: null, agentId: null },
    ...{ id: existing?.id ?? context.newId(), siteId, name: form.name, reach: form.reach, address },
    ...{ practice: same?.practice ?? false, publicKey: same?.publicKey ?? null, otherKey: same?.otherKey ?? null },
    pinned: existing?.reach === form.reach ? existing.pinned : false,
    pinnedAtMs: existing?.reach === form.reach ? existing.pinnedAtMs : null,
    farSiteId: form.reach === 'tunnel' && form.farSiteId !== siteId ? form.farSiteId : null,
  };
  await sites.savePeer(peer);
  return done(peer);
}

/** Runs of its reach go to this peer from now on, so that they compare. */
export async function pinPeer(context: ConsoleContext, peerId: string): Promise<void> {
  const peer = await context.store.sites.peer(peerId);
  if (peer !== null) await context.store.sites.pinPeer(peer, context.wallMs());
}

/** Takes the key that a peer shows now for its own; the one before is forgotten. */
export async function acceptPeerKey(context: ConsoleContext, peerId: string): Promise<void> {
  const peer = await context.store.sites.peer(peerId);
  if (peer === null || peer.otherKey === null) return;
  await context.store.sites.saveKeys(peerId, { publicKey: peer.otherKey, otherKey: null });
}

/**
 * What became known of a peer's key: the first one is kept, another one later is held against it. A peer that shows
 * none (an older one) changes nothing.
 */
export async function notePeerKey(
  context: ConsoleContext,
  peer: StoredPeer,
  shown: string | null,
): Promise<StoredPeer> {
  if (shown === null) return peer;
  const keys =
    peer.publicKey === null || peer.publicKey === shown
      ? { publicKey: shown, otherKey: null }
      : { publicKey: peer.publicKey, otherKey: shown };
  if (keys.publicKey !== peer.publicKey || keys.otherKey !== peer.otherKey) {
    await context.store.sites.saveKeys(peer.id, keys);
    if (keys.otherKey !== null) context.log.warn({ peer: peer.name, address: peer.address }, 'peer shows another key');
    context.changes.tell('office');
  }
  return { ...peer, ...keys };
}
