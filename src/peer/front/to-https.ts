import type { IncomingMessage } from 'node:http';
import { hostOf } from './known-hosts';

/** Half a year: a browser that came by https once does not come in plain again (RFC 6797). */
export const STRICT_TRANSPORT = 'max-age=15552000';

const isEncrypted = (request: IncomingMessage) => 'encrypted' in request.socket && request.socket.encrypted === true;

/** Whether a request came over TLS, to this door or to the proxy before it. */
export function cameByHttps(request: IncomingMessage): boolean {
  return isEncrypted(request) || request.headers['x-forwarded-proto'] === 'https';
}

/**
 * Where a request that came in plain should go instead: the same by https. Null for one that came by https, and for this
 * machine's own names, for which no certificate stands.
 */
export function httpsInstead(request: IncomingMessage): string | null {
  const host = hostOf(request.headers.host);
  if (cameByHttps(request) || host === null || host === 'localhost' || host === '::1' || host.startsWith('127.'))
    return null;
  return `https://${request.headers.host}${request.url ?? '/'}`;
}
