import { once } from 'node:events';
import { connect } from 'node:net';
import { networkInterfaces } from 'node:os';
import { MOST_KNOCKS, type OutsideAsked, type OutsideFound } from '@/core';
import { httpRequest, openSession } from '@/client/node';
import { knockAnswerSchema, PEER_PATHS, type FarLook } from '@/wire';
import { askIgd, findIgd } from './igd';
import { LookFault } from './look-fault';
import { reachFar } from './reach-far';

/** A far end that says nothing for so long is not there, ms. */
const PATIENCE_MS = 5000;

/** Addresses of IPv6 that everybody can reach begin so (2000::/3, RFC 4291 §2.4). */
const GLOBAL_IPV6 = /^[23][0-9a-f]{3}:/i;

const hasGlobalIpv6 = () =>
  Object.values(networkInterfaces())
    .flatMap((each) => each ?? [])
    .some(({ address, internal }) => !internal && GLOBAL_IPV6.test(address));

/** What the office's router calls its address outside; null: none tells. */
export async function routerAddress(signal: AbortSignal): Promise<string | null> {
  try {
    const services = (await findIgd(signal))?.services ?? [];
    const connection = services.find(({ type }) => /:WAN(?:IP|PPP)Connection:/.test(type));
    const told = connection === undefined ? null : await askIgd(connection, 'GetExternalIPAddress');
    return told?.['NewExternalIPAddress']?.slice(0, 60) || null;
  } catch {
    return null;
  }
}

/** By which of its addresses this machine goes there. */
async function ownAddressTowards(base: URL, signal: AbortSignal): Promise<string> {
  const port = Number(base.port) || (base.protocol === 'https:' ? 443 : 80);
  const socket = connect({ host: base.hostname.replace(/^\[|\]$/g, ''), port });
  try {
    await once(socket, 'connect', { signal: AbortSignal.any([signal, AbortSignal.timeout(PATIENCE_MS)]) });
    return socket.localAddress ?? '';
  } finally {
    socket.destroy();
  }
}

/**
 * How this office looks from a far end: by which address it is seen, and which of its ports answer there. `origin`: of the console, which
 * may itself be the far end. Throws LookFault.
 */
export async function lookFromOutside(
  { ports }: OutsideAsked,
  wanted: FarLook | null,
  { signal, origin, askRouter = routerAddress }: OutsideParts,
): Promise<OutsideFound> {
  const { far, baseUrl: base, away, refused } = reachFar(wanted, origin);
  const post = (url: URL) =>
    httpRequest(url, { method: 'POST', signal: AbortSignal.any([signal, AbortSignal.timeout(PATIENCE_MS)]) });
  const asking = askRouter(signal);
  const opened = await openSession(post, base, far.ticket, signal);
  if (signal.aborted) throw new LookFault('look-stopped');
  if (!opened.ok) throw refused(opened.reason);
  const { session, address, info } = opened.opened;
  if (!info.can.knock) throw new LookFault('outside-old', { peer: far.name });
  const found: OutsideFound['ports'][number][] = [];
  // One after the other: a session has one knocked at a time.
  for (const port of ports.slice(0, MOST_KNOCKS)) {
    const answer = await post(new URL(`${PEER_PATHS.knock}?session=${session}&port=${port}`, base)).catch(() => null);
    if (signal.aborted) throw new LookFault('look-stopped');
    const told = answer?.ok === true ? knockAnswerSchema.safeParse(await answer.json().catch(() => null)) : null;
    if (told?.success !== true) throw away();
    found.push({ port, state: told.data.state });
  }
  return {
    ...{ what: 'outside', peer: far.name, seenAddress: address, ports: found },
    ownAddress: await ownAddressTowards(new URL(base), signal).catch(() => {
      throw away();
    }),
    routerAddress: await asking,
    ownIpv6: hasGlobalIpv6(),
  };
}

export interface OutsideParts {
  readonly signal: AbortSignal;
  readonly origin: string;
  readonly askRouter?: (signal: AbortSignal) => Promise<string | null>;
}
