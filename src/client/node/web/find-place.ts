import { lookup } from 'node:dns/promises';
import { connect as connectTls } from 'node:tls';
import { pageBytes, SMALLEST_PAGE_BYTES } from '@/core';
import { openWebConnection, type AnswerHead } from './web-connection';
import { serverName, type WebManners, type WebPlace } from './web-place';

/** Why a page cannot be measured against. */
export class WebPlaceError extends Error {
  constructor(
    /** The server answered, and not with the page. */
    readonly refused: boolean,
    message: string,
  ) {
    super(message);
  }
}

const MOST_REDIRECTS = 5;
const PATIENCE_MS = 8000;
const REDIRECTS = [301, 302, 303, 307, 308];

/** Whether the server speaks HTTP/2 is agreed on in the TLS handshake (RFC 7301). */
function agreedVersion(host: string, port: number, name: string, ca?: string): Promise<WebPlace['version']> {
  return new Promise((resolve, reject) => {
    const socket = connectTls(
      { host, port, ALPNProtocols: ['h2', 'http/1.1'], ...serverName(name), ...(ca !== undefined && { ca }) },
      () => {
        resolve(socket.alpnProtocol === 'h2' ? 'HTTP/2' : 'HTTP/1.1');
        socket.destroy();
      },
    );
    socket.setTimeout(PATIENCE_MS, () => socket.destroy(new Error('no answer')));
    socket.once('error', reject);
  });
}

async function machineOf(url: URL, ca?: string) {
  const name = url.hostname.replace(/^\[|\]$/g, '');
  const { address, family } = await lookup(name);
  const port = Number(url.port || (url.protocol === 'https:' ? 443 : 80));
  const version = url.protocol === 'https:' ? await agreedVersion(address, port, name, ca) : 'HTTP/1.1';
  return { url, address, family: family as 4 | 6, port, version } as const;
}

/** The head of the answer to asking for the first byte alone. */
function askFirstByte(place: Parameters<typeof openWebConnection>[0], manners: WebManners): Promise<AnswerHead> {
  const connection = openWebConnection(place, manners);
  return new Promise<AnswerHead>((resolve, reject) => {
    const timer = setTimeout(() => reject(new Error('no answer')), PATIENCE_MS);
    connection.get('bytes=0-0', {
      onHead: (head) => {
        clearTimeout(timer);
        resolve(head);
      },
      onBody: () => undefined,
      onEnd: (trouble) => {
        clearTimeout(timer);
        reject(new Error(trouble ?? 'an answer without a head'));
      },
    });
  }).finally(() => connection.close());
}

/** Where an answer points to. Throws WebPlaceError where that is no place of the web. */
function pointedTo(location: string, from: URL): URL {
  const isAddress = URL.canParse(location, from);
  const url = isAddress ? new URL(location, from) : null;
  if (url === null || !/^https?:$/.test(url.protocol))
    throw new WebPlaceError(true, `it points to ${location.slice(0, 80)}`);
  return url;
}

/**
 * Finds a page: resolves its name once, agrees on HTTP/2 or HTTP/1.1, follows redirects, and asks whether parts of it can be
 * had. Throws WebPlaceError when it cannot be loaded.
 */
export async function findPlace(page: string, manners: WebManners): Promise<WebPlace> {
  let url = new URL(page);
  for (let hop = 0; hop <= MOST_REDIRECTS; hop += 1) {
    const unreachable = (error: unknown) => {
      throw new WebPlaceError(false, `${url.host}: ${error instanceof Error ? error.message : String(error)}`);
    };
    const machine = await machineOf(url, manners.ca).catch(unreachable);
    const head = await askFirstByte(machine, manners).catch(unreachable);
    if (REDIRECTS.includes(head.status) && head.headers['location'] !== undefined) {
      url = pointedTo(String(head.headers['location']), url);
      continue;
    }
    if (head.status !== 200 && head.status !== 206) throw new WebPlaceError(true, `${url.host}: status ${head.status}`);
    const said = (name: string) => String(head.headers[name] ?? '');
    const sizeBytes = pageBytes(head.status, said('content-range'), said('content-length'));
    if (sizeBytes !== null && sizeBytes < SMALLEST_PAGE_BYTES)
      throw new WebPlaceError(true, `${url.host}: only ${sizeBytes} bytes long`);
    return { ...machine, sizeBytes, takesRanges: head.status === 206 };
  }
  throw new WebPlaceError(true, `${url.host}: more than ${MOST_REDIRECTS} redirects`);
}
