import { PEER_PATHS, peerInfoSchema, type PeerInfo } from '@/wire';
import type { ConsoleContext } from './console-context';
import { peerBaseUrl } from './peer-address';

/** How a peer stands, seen from this console. */
export type PeerState =
  | { readonly status: 'answering'; readonly info: PeerInfo }
  | { readonly status: 'silent'; readonly address: string }
  | { readonly status: 'not-a-peer'; readonly address: string };

const PATIENCE_MS = 1500;
const LONGEST_ANSWER = 16_384;

/** Asks a peer for its info document. What it says is checked; a peer that answers nonsense is not one. */
export async function checkPeer(context: ConsoleContext, address: string): Promise<PeerState> {
  const baseUrl = peerBaseUrl(address, `http://127.0.0.1:${context.port}`);
  if (baseUrl === null) return { status: 'silent', address };
  try {
    const response = await fetch(new URL(PEER_PATHS.info, baseUrl), {
      signal: AbortSignal.timeout(PATIENCE_MS),
      redirect: 'error',
    });
    const text = await response.text();
    if (text.length > LONGEST_ANSWER) return { status: 'not-a-peer', address: baseUrl };
    const info = peerInfoSchema.safeParse(JSON.parse(text));
    if (!info.success) return { status: 'not-a-peer', address: baseUrl };
    return { status: 'answering', info: info.data };
  } catch (error) {
    return { status: error instanceof SyntaxError ? 'not-a-peer' : 'silent', address: baseUrl };
  }
}
