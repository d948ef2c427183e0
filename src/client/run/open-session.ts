import { PEER_PATHS, sessionOpenedSchema, type SessionOpened } from '@/wire';
import type { UnfinishedReason } from '@/core';

export type SessionResult =
  | { readonly ok: true; readonly opened: SessionOpened }
  | { readonly ok: false; readonly reason: UnfinishedReason };

/** How a client asks, by POST: `fetch` in a browser. */
export type AskForSession = (
  url: URL,
  signal: AbortSignal,
) => Promise<Pick<Response, 'status'> & { json(): Promise<unknown> }>;

/**
 * Trades a ticket for a session. What the peer answers is checked; a refusal, a busy peer and one that cannot be reached
 * are told apart.
 */
export async function openSession(
  ask: AskForSession,
  baseUrl: string,
  ticket: string,
  signal: AbortSignal,
): Promise<SessionResult> {
  const url = new URL(PEER_PATHS.sessions, baseUrl);
  url.searchParams.set('ticket', ticket);
  const once = async (): Promise<SessionResult | null> => {
    try {
      const response = await ask(url, signal);
      const body = await response.json();
      if (response.status === 503) return { ok: false, reason: 'peer-busy' };
      const opened = sessionOpenedSchema.safeParse(body);
      return opened.success ? { ok: true, opened: opened.data } : { ok: false, reason: 'peer-refused' };
    } catch {
      return null;
    }
  };
  const first = await once();
  // A connection that was kept from the run before may be dead: the next one is new.
  const result = first === null && !signal.aborted ? await once() : first;
  return result ?? { ok: false, reason: 'peer-unreachable' };
}
