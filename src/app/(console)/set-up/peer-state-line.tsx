import { delayWords } from '@/core';
import type { SetUp } from '@/services';
import { checkedPeer } from './checked-peer';

/** How a peer stands just now, asked by the server while the rest of the page is there already. */
export async function PeerStateLine({ peer }: { readonly peer: SetUp['peers'][number] }) {
  const state = await checkedPeer(peer);
  switch (state.status) {
    case 'answering':
      return (
        <span className="text-quiet">
          answers, {delayWords(state.awayMs)} away · version {state.info.version ?? 'not told'}
          {state.info.congestionControl && ` · sends with ${state.info.congestionControl}`}
          {state.info.load !== undefined &&
            ` · ${state.info.load.activeSessions} of ${state.info.load.mostSessions} runs`}
        </span>
      );
    case 'not-a-peer':
      return (
        <span className="font-medium text-starved">
          Something answers at {state.address}, but it is no peer. Check the address.
        </span>
      );
    case 'silent':
      return (
        <span className="font-medium text-starved">
          Nothing answers at {state.address}. Start the peer there, or correct the address.
        </span>
      );
  }
}
