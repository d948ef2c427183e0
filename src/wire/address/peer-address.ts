/**
 * Where a peer is, as entered in the set-up:
 * "/" the address by which this console was opened, ":4871" another port of the same host, or a whole URL.
 */
export const SAME_ORIGIN = '/';

const PORT_ONLY = /^:(\d{1,5})$/;

/** The absolute address of a peer for somebody who opened the console by `origin`; null when it makes no sense. */
export function peerBaseUrl(address: string, origin: string): string | null {
  if (address === SAME_ORIGIN) return new URL(origin).origin;
  const port = PORT_ONLY.exec(address)?.[1];
  if (port !== undefined) {
    if (Number(port) < 1 || Number(port) > 65_535) return null;
    const url = new URL(origin);
    url.port = port;
    return url.origin;
  }
  try {
    const url = new URL(address);
    return url.protocol === 'http:' || url.protocol === 'https:' ? url.origin : null;
  } catch {
    return null;
  }
}
