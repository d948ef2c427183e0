import { controlMessageSchema, PEER_PATHS, sessionOpenedSchema, type ControlMessage, type SessionOpened } from '@/wire';
import type { UnfinishedReason } from '@/core';

/** A peer's address with what belongs to one session. */
export interface PeerAddress {
  readonly baseUrl: string;
  readonly session: string;
}

export type OpenResult =
  { readonly ok: true; readonly opened: SessionOpened } | { readonly ok: false; readonly reason: UnfinishedReason };

export function peerUrl({ baseUrl, session }: PeerAddress, path: string, stream?: number): string {
  const url = new URL(path, baseUrl);
  url.searchParams.set('session', session);
  if (stream !== undefined) url.searchParams.set('stream', String(stream));
  return url.href;
}

export function peerSocketUrl(address: PeerAddress, path: string): string {
  return peerUrl(address, path).replace(/^http/, 'ws');
}

/** Trades a ticket for a session. A refusal and an unreachable peer are told apart. */
export async function openSession(baseUrl: string, ticket: string, signal: AbortSignal): Promise<OpenResult> {
  const url = new URL(PEER_PATHS.sessions, baseUrl);
  url.searchParams.set('ticket', ticket);
  try {
    const response = await fetch(url, { method: 'POST', signal, cache: 'no-store' });
    const body: unknown = await response.json();
    if (response.status === 503) return { ok: false, reason: 'peer-busy' };
    const opened = sessionOpenedSchema.safeParse(body);
    return opened.success ? { ok: true, opened: opened.data } : { ok: false, reason: 'peer-refused' };
  } catch {
    return { ok: false, reason: 'peer-unreachable' };
  }
}

export function readControlMessage(text: unknown): ControlMessage | null {
  if (typeof text !== 'string') return null;
  try {
    return controlMessageSchema.safeParse(JSON.parse(text)).data ?? null;
  } catch {
    return null;
  }
}
