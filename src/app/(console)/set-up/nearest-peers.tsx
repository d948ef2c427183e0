import { delayWords, PEER_REACHES } from '@/core';
import type { SetUp } from '@/services';
import { checkedPeer } from './checked-peer';

/** Where there is a choice of peers, which one is nearest by delay. */
export async function NearestPeers({ peers: all }: Pick<SetUp, 'peers'>) {
  const peers = all.filter(({ web, agentId }) => web === null && agentId === null);
  const choices = PEER_REACHES.filter((reach) => peers.filter((peer) => peer.reach === reach).length > 1);
  const found = await Promise.all(
    choices.map(async (reach) => {
      const candidates = peers.filter((peer) => peer.reach === reach);
      const states = await Promise.all(candidates.map((peer) => checkedPeer(peer)));
      const [nearest] = states
        .flatMap((state, index) =>
          state.status === 'answering' ? [{ name: candidates[index]!.name, awayMs: state.awayMs }] : [],
        )
        .sort((one, other) => one.awayMs - other.awayMs);
      return { reach, nearest };
    }),
  );
  return found.map(
    ({ reach, nearest }) =>
      nearest !== undefined && (
        <p key={reach} className="mt-2 text-sm text-quiet">
          Nearest of reach {reach}, seen from here: <span className="text-ink">{nearest.name}</span>,{' '}
          {delayWords(nearest.awayMs)} away.
        </p>
      ),
  );
}
