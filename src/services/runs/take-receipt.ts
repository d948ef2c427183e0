import * as z from 'zod';
import type { StoredPeer, StoredReceipt, StoredRun } from '@/store';
import { PEER_PATHS } from '@/wire';
import { readReceipt } from '@/wire/peer/ticket';
import type { ConsoleContext } from '../console/console-context';
import { peerBaseUrl } from '@/wire/address';
import { checkPeer } from '../office/peer-check';

const PATIENCE_MS = 1500;
const shownSchema = z.object({ receipt: z.string() });

/** The key by which a peer is known; one that was never looked at is asked for it now. */
async function keyOf(context: ConsoleContext, peer: StoredPeer): Promise<string | null> {
  if (peer.publicKey !== null) return peer.publicKey;
  await checkPeer(context, peer);
  return (await context.store.sites.peer(peer.id))?.publicKey ?? null;
}

/** What the peer itself still has of a session, asked over the link; null where it cannot be reached or has nothing. */
async function askPeer(context: ConsoleContext, peer: StoredPeer, ticketId: string): Promise<string | null> {
  const baseUrl = peerBaseUrl(peer.address, `http://127.0.0.1:${context.port}`);
  if (baseUrl === null) return null;
  try {
    const url = new URL(`${PEER_PATHS.receipt}?ticket=${encodeURIComponent(ticketId)}`, baseUrl);
    const response = await fetch(url, { signal: AbortSignal.timeout(PATIENCE_MS), redirect: 'error' });
    return response.ok ? (shownSchema.safeParse(await response.json()).data?.receipt ?? null) : null;
  } catch {
    return null;
  }
}

const NONE: StoredReceipt = { receipt: null };

/**
 * The receipt of a run, if its peer signed one for its ticket: as the client carried it, or, where that is missing or
 * not true, as the peer tells. With the signed text, so that anybody can check it later. None: nothing but the client
 * speaks for the run.
 */
export async function takeReceipt(
  context: ConsoleContext,
  run: Pick<StoredRun, 'id' | 'peerId' | 'ticketId'>,
  carried: string | null,
): Promise<StoredReceipt> {
  const peer = await context.store.sites.peer(run.peerId);
  if (peer === null || peer.web !== null || run.ticketId === null) return NONE;
  const key = await keyOf(context, peer);
  if (key === null) return NONE;
  const fits = (text: string | null): StoredReceipt | null => {
    const receipt = text === null ? null : readReceipt(text, key);
    if (text === null || receipt?.runId !== run.id || receipt.ticketId !== run.ticketId) return null;
    return { receipt, signed: text, key };
  };
  return fits(carried) ?? fits(await askPeer(context, peer, run.ticketId)) ?? NONE;
}
