/** A peer's address with what belongs to one session. */
export interface PeerAddress {
  readonly baseUrl: string;
  readonly session: string;
}

export function peerUrl({ baseUrl, session }: PeerAddress, path: string, stream?: number): string {
  const url = new URL(path, baseUrl);
  url.searchParams.set('session', session);
  if (stream !== undefined) url.searchParams.set('stream', String(stream));
  return url.href;
}
