import { randomBytes } from 'node:crypto';
import type { StoredPeer } from '@/store';
import { PEER_PATHS, peerInfoSchema, type PeerInfo } from '@/wire';
import { checkIdentity, signTicket } from '@/wire/peer/ticket';
import type { ConsoleContext } from '../console/console-context';
import { peerBaseUrl } from '@/wire/address';
import { notePeerKey } from './peers';

/** How a peer stands, seen from this console. */
export type PeerState =
  /** `awayMs`: the fastest of a few requests from the console, for telling near from far; `keyChanged`: see peer-key-changed. */
  | { readonly status: 'answering'; readonly info: PeerInfo; readonly awayMs: number; readonly keyChanged: boolean }
  | { readonly status: 'silent'; readonly address: string }
  | { readonly status: 'not-a-peer'; readonly address: string };

const PATIENCE_MS = 1500;
const LOOK_LIFE_MS = 30_000;
const LONGEST_ANSWER = 16_384;
const ASKS = 5;

/** Shows a peer that it is its console that asks: for nothing but what it tells to those it knows. */
function lookTicket({ signingKey, newId, wallMs }: ConsoleContext): string {
  const issuedAtMs = wallMs();
  return signTicket(
    {
      ...{ id: newId(), peerKey: null, runId: 'none', deviceId: 'the console', directions: ['down'] },
      ...{ limits: { seconds: 1, bytes: 1, streams: 1 }, issuedAtMs, expiresAtMs: issuedAtMs + LOOK_LIFE_MS },
    },
    signingKey,
  );
}

/** Asks a peer for its info document and its identity. What it says is checked; one that answers nonsense is no peer. */
export async function checkPeer(context: ConsoleContext, peer: StoredPeer): Promise<PeerState> {
  const baseUrl = peerBaseUrl(peer.address, `http://127.0.0.1:${context.port}`);
  if (baseUrl === null) return { status: 'silent', address: peer.address };
  const challenge = randomBytes(24).toString('base64url');
  const url = new URL(`${PEER_PATHS.info}?challenge=${challenge}&ticket=${lookTicket(context)}`, baseUrl);
  const ask = async () => {
    const startedMs = performance.now();
    const response = await fetch(url, { signal: AbortSignal.timeout(PATIENCE_MS), redirect: 'error' });
    const text = await response.text();
    return { text, tookMs: performance.now() - startedMs };
  };
  try {
    const { text } = await ask();
    if (text.length > LONGEST_ANSWER) return { status: 'not-a-peer', address: baseUrl };
    const info = peerInfoSchema.safeParse(JSON.parse(text));
    if (!info.success) return { status: 'not-a-peer', address: baseUrl };
    // The connection stands now: further answers take a round trip and little else.
    const took: number[] = [];
    for (let time = 0; time < ASKS; time += 1) took.push((await ask()).tookMs);
    const { identity } = info.data;
    const shown = identity === undefined ? null : checkIdentity(identity, challenge);
    const { otherKey } = await notePeerKey(context, peer, shown);
    return { status: 'answering', info: info.data, awayMs: Math.min(...took), keyChanged: otherKey !== null };
  } catch (error) {
    return { status: error instanceof SyntaxError ? 'not-a-peer' : 'silent', address: baseUrl };
  }
}

/** Looks at all peers of all offices now and then, so that a changed key is noticed before it is measured against. */
export async function checkPeerKeys(context: ConsoleContext): Promise<void> {
  const { sites } = context.store;
  for (const site of await sites.all()) {
    const peers = (await sites.peersOf(site.id)).filter(({ web, agentId }) => web === null && agentId === null);
    for (const peer of peers) await checkPeer(context, peer);
  }
}
