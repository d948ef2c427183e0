import { pageBytes, type WebFarEnd } from '@/core';
import { NEW_PEER, type StoredPeer } from '@/store';
import { done, failed, type ConsoleFaultCode, type Outcome, type WebFarEndForm } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

/** Enters pages of a web server as a far end outside, or changes one. */
export async function saveWebFarEnd(
  context: ConsoleContext,
  siteId: string,
  peerId: string | null,
  { name, pages, mostMb, contact }: WebFarEndForm,
): Promise<Outcome<StoredPeer, ConsoleFaultCode>> {
  const { sites } = context.store;
  if ((await sites.byId(siteId)) === null) return failed('site-missing');
  const peers = await sites.peersOf(siteId);
  const existing = peers.find(({ id, web }) => id === peerId && web !== null);
  const namesake = peers.find((peer) => peer.name === name);
  if (namesake !== undefined && namesake.id !== existing?.id) return failed('name-taken', { what: 'peer', name });
  const peer: StoredPeer = {
    ...NEW_PEER,
    ...{ pinned: existing?.pinned ?? false, pinnedAtMs: existing?.pinnedAtMs ?? null },
    ...{ id: existing?.id ?? context.newId(), siteId, name, reach: 'internet' },
    address: new URL(pages[0]!).origin,
    web: { pages, mostBytes: mostMb * 1e6, contact },
  };
  await sites.savePeer(peer);
  return done(peer);
}

/** How a page answers the console's machine just now. */
export type WebPageState =
  | {
      readonly status: 'answers';
      readonly host: string;
      readonly sizeBytes: number | null;
      readonly takesRanges: boolean;
    }
  | { readonly status: 'refuses'; readonly host: string; readonly answer: number }
  | { readonly status: 'silent'; readonly host: string };

const PATIENCE_MS = 4000;

async function stateOf(page: string, userAgent: string): Promise<WebPageState> {
  const { host } = new URL(page);
  const stop = new AbortController();
  const timer = setTimeout(() => stop.abort(), PATIENCE_MS);
  try {
    const headers = { Range: 'bytes=0-0', 'User-Agent': userAgent, 'Accept-Encoding': 'identity' };
    const answer = await fetch(page, { headers, signal: stop.signal });
    if (answer.status !== 200 && answer.status !== 206) return { status: 'refuses', host, answer: answer.status };
    const said = (name: string) => answer.headers.get(name) ?? '';
    const sizeBytes = pageBytes(answer.status, said('content-range'), said('content-length'));
    return { status: 'answers', host, sizeBytes, takesRanges: answer.status === 206 };
  } catch {
    return { status: 'silent', host };
  } finally {
    clearTimeout(timer);
    // The rest of a page that comes whole is not wanted.
    stop.abort();
  }
}

/** Asks each page for its first byte. */
export function checkWebFarEnd({ pages, contact }: WebFarEnd): Promise<WebPageState[]> {
  return Promise.all(pages.map((page) => stateOf(page, `bent-straw-console (${contact})`)));
}
