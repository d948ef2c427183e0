import type { IncomingMessage } from 'node:http';
import { plainAddress } from '@/wire/address';

/** What a stranger may not claim about himself; the door fills them in anew. */
const FORWARDED_HEADERS: ReadonlySet<string> = new Set([
  'x-forwarded-for',
  'x-forwarded-host',
  'x-forwarded-proto',
  'x-forwarded-port',
  'forwarded',
]);

function lastOf(header: string | string[] | undefined): string | null {
  const text = Array.isArray(header) ? header.at(-1) : header;
  return text?.split(',').at(-1)?.trim() || null;
}

/**
 * Who really asks. Only a proxy that was named (`proxies`: its addresses) may say so on somebody's behalf: the address
 * that it saw is the last in its list, and the host that it was asked for goes before its own. From everybody else such
 * headers are taken away.
 */
export function settleForwarded(request: IncomingMessage, proxies: readonly string[], doorHeader: string): void {
  const trusted = proxies.includes(plainAddress(request.socket.remoteAddress ?? ''));
  request.headers = Object.fromEntries(
    Object.entries(request.headers).filter(
      ([name]) => name !== doorHeader && name !== 'forwarded' && (trusted || !FORWARDED_HEADERS.has(name)),
    ),
  );
  if (!trusted) return;
  const client = lastOf(request.headers['x-forwarded-for']);
  if (client === null) delete request.headers['x-forwarded-for'];
  else request.headers['x-forwarded-for'] = client;
  const host = lastOf(request.headers['x-forwarded-host']);
  if (host !== null) request.headers.host = host;
}

/** The client's address, as the door settled it. */
export function clientAddressOf(request: IncomingMessage): string | undefined {
  return lastOf(request.headers['x-forwarded-for']) ?? request.socket.remoteAddress;
}
