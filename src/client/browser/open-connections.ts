import { PEER_PATHS } from '@/wire';
import { peerUrl, type PeerAddress } from '../run/peer-address';

/**
 * Opens the connections that the streams of a long path will use while the line is still idle, by as many requests of one
 * byte at once. Without it the first streams take the page's own connections, start a round trip or two before the rest,
 * and fill the line while those are still small: they then lose packets and stay small for longer than a run lasts.
 */
export async function openConnections(peer: PeerAddress, streams: number): Promise<void> {
  const asked = Array.from({ length: streams }, async (_, stream) => {
    const response = await fetch(`${peerUrl(peer, PEER_PATHS.down, stream)}&bytes=1`, { cache: 'no-store' });
    await response.arrayBuffer();
  });
  // Only a help: what cannot be opened here fails in the run itself, and says so there.
  await Promise.allSettled(asked);
}
