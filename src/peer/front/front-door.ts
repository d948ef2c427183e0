import { randomBytes } from 'node:crypto';
import { Agent, createServer as createHttpServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { createServer, type Server, type Socket } from 'node:net';
import type { Duplex } from 'node:stream';
import { createServer as createTlsServer } from 'node:tls';
import { createProxyServer } from 'httpxy';
import {
  DOOR_HEADER,
  failed,
  LARGEST_REQUEST,
  PEER_FAULTS,
  problemOf,
  REQUEST_ID_HEADER,
  type PeerFaultCode,
} from '@/wire';
import { plainAddress } from '@/wire/address';
import { answerFault, refuseUpgrade } from '../http/answer';
import type { Peer } from '../http/peer';
import { loggedPath, type OnPeerEvent } from '../peer-events';
import { consoleAwayPage, refusedPage } from './console-away-page';
import { clientAddressOf, settleForwarded } from './forwarded';
import { knowsHost } from './known-hosts';
import { Strangers, USUAL_LIMITS, type StrangerEntry, type StrangerLimits } from './strangers';
import { sortConnection } from './upload-connection';
import { cameByHttps, httpsInstead, STRICT_TRANSPORT } from './to-https';
import { limitedBody, throwAway, watchBody } from './watch-body';

/** Where the console listens, or null for a peer without one. */
export interface FrontDoorOptions {
  readonly consolePort: number | null;
  /** Shows the console that a request came through this door. */
  readonly doorSecret?: string | undefined;
  /** Certificate and key as PEM; null: plain HTTP only. */
  readonly tls?: { readonly cert: string; readonly key: string } | null;
  /** Names by which the console may be asked for, besides its own. */
  readonly hosts?: readonly string[] | undefined;
  /** Addresses of proxies that speak for others; none: everybody speaks for himself. */
  readonly proxies?: readonly string[] | undefined;
  readonly strangers?: Partial<StrangerLimits> | undefined;
  /** Whether pages that are asked for in plain are sent to https: where the certificate is one that browsers trust. */
  readonly toHttps?: boolean | undefined;
  readonly onEvent?: OnPeerEvent | undefined;
}

/** Of a body that is too large so much is read and thrown away, so that the refusal can be read; then no more. */
const MOST_THROWN_AWAY = 4 * LARGEST_REQUEST;
/** A TLS handshake that is not done by then is given up, ms. */
const HANDSHAKE_MS = 10_000;

function readUrl(request: IncomingMessage): URL | null {
  try {
    return new URL(request.url ?? '/', 'http://peer.invalid');
  } catch {
    return null;
  }
}

/** Whether everything in a path can be decoded: what cannot would make whoever reads it further in throw. */
function isReadable(path: string): boolean {
  try {
    decodeURIComponent(path);
    return true;
  } catch {
    return false;
  }
}

const METHODS = new Set(['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS']);

/** Refuses: a page for people, problem details for all others. */
function refuse(request: IncomingMessage, response: ServerResponse, code: PeerFaultCode): void {
  if (request.headers.accept?.includes('text/html') !== true) return answerFault(request, response, failed(code).fault);
  const problem = problemOf(PEER_FAULTS, failed(code).fault);
  response.writeHead(problem.status, { 'Content-Type': 'text/html; charset=utf-8', 'Cache-Control': 'no-store' });
  response.end(refusedPage(problem));
}

/** The listening server, with what ends every connection at once. */
export type FrontDoor = Server & { closeAllConnections(): void };

/** Which connection a request came by, whatever is wrapped around its socket. */
const keyOf = ({
  remoteAddress,
  remotePort,
}: {
  remoteAddress?: string | undefined;
  remotePort?: number | undefined;
}) => `${remoteAddress} ${remotePort}`;

/** The one listening port: measurement paths are served by the peer, everything else is handed to the console. */
export function createFrontDoor(peer: Peer, options: FrontDoorOptions): FrontDoor {
  const { consolePort, tls = null, hosts = [], proxies = [], doorSecret = '', toHttps = false, onEvent } = options;
  // Behind a proxy everybody comes by its address.
  const perAddress = proxies.length > 0 ? Infinity : USUAL_LIMITS.perAddress;
  const limits: StrangerLimits = { ...USUAL_LIMITS, perAddress, ...options.strangers };
  const strangers = new Strangers(limits);
  const entries = new Map<string, StrangerEntry>();
  const entryOf = (request: IncomingMessage) => entries.get(keyOf(request.socket));
  // A connection of its own for each request: a kept one that the console has just closed would fail for no reason.
  const proxy = createProxyServer({
    xfwd: true,
    agent: new Agent({ keepAlive: false }),
    headers: { [DOOR_HEADER]: doorSecret },
  });
  // Whoever goes away in the middle is waited for by nobody.
  proxy.on('proxyReq', (toConsole, request) => {
    request.once('close', () => {
      if (!request.complete) toConsole.destroy();
    });
  });
  const target = { host: '127.0.0.1', port: consolePort ?? 0, protocol: 'http:' };

  const consoleAway = (request: IncomingMessage, response: ServerResponse) => {
    onEvent?.({ kind: 'console-away', id: String(request.headers[REQUEST_ID_HEADER]) });
    if (response.headersSent) {
      response.destroy();
    } else if (request.headers.accept?.includes('text/html')) {
      response.writeHead(502, { 'Content-Type': 'text/html; charset=utf-8', 'Cache-Control': 'no-store' });
      response.end(consoleAwayPage());
    } else {
      answerFault(request, response, failed('console-unreachable').fault);
    }
  };

  const toConsole = (request: IncomingMessage, response: ServerResponse) => {
    const refuse = () => {
      if (response.headersSent) response.destroy();
      else answerFault(request, response, failed('body-too-large', { limit: LARGEST_REQUEST }).fault);
    };
    const tooLarge = () => throwAway(request, MOST_THROWN_AWAY, refuse);
    const length = Number(request.headers['content-length'] ?? 0);
    if (length > MOST_THROWN_AWAY) return refuse();
    if (length > LARGEST_REQUEST) return tooLarge();
    // What names no length is counted on its way.
    const counted = request.headers['transfer-encoding'] !== undefined;
    const buffer = counted ? limitedBody(request, LARGEST_REQUEST, tooLarge) : undefined;
    proxy
      .web(request, response, { target, ...(buffer !== undefined && { buffer }) })
      .catch(() => consoleAway(request, response));
  };

  /** Names a request that is for the console, and tells how it ended. Measuring itself is told by its sessions. */
  const noteRequest = ({ pathname }: URL, request: IncomingMessage, response: ServerResponse) => {
    const id = randomBytes(9).toString('base64url');
    const startedMs = performance.now();
    request.headers[REQUEST_ID_HEADER] = id;
    response.setHeader('X-Request-Id', id);
    response.once('close', () =>
      onEvent?.({
        kind: 'request',
        request: {
          ...{ id, method: request.method ?? '', path: loggedPath(pathname), status: response.statusCode },
          ...{ tookMs: Math.round(performance.now() - startedMs), address: clientAddressOf(request) ?? null },
        },
      }),
    );
  };

  const handle = (request: IncomingMessage, response: ServerResponse) => {
    const entry = entryOf(request);
    entry?.asked();
    response.once('close', () => entry?.answered());
    watchBody(request, limits.bodyIdleMs);
    settleForwarded(request, proxies, DOOR_HEADER);
    const url = readUrl(request);
    if (url === null) return answerFault(request, response, failed('path-unknown').fault);
    if (peer.serves(url.pathname)) {
      if (peer.knows(url)) entry?.known();
      return peer.handle(url, request, response);
    }
    noteRequest(url, request, response);
    if (consolePort === null) return refuse(request, response, 'no-console');
    if (!knowsHost(request.headers.host, hosts)) return refuse(request, response, 'host-unknown');
    if (!METHODS.has(request.method ?? '')) return refuse(request, response, 'method-not-allowed');
    if (!isReadable(url.pathname)) return refuse(request, response, 'path-malformed');
    const elsewhere = toHttps ? httpsInstead(request) : null;
    if (elsewhere !== null) {
      response.writeHead(308, { Location: elsewhere });
      response.end();
      return;
    }
    if (toHttps && cameByHttps(request)) response.setHeader('Strict-Transport-Security', STRICT_TRANSPORT);
    toConsole(request, response);
  };

  const upgrade = (request: IncomingMessage, socket: Duplex, head: Buffer) => {
    socket.on('error', () => socket.destroy());
    const entry = entryOf(request);
    entry?.asked();
    settleForwarded(request, proxies, DOOR_HEADER);
    const url = readUrl(request);
    if (url !== null && peer.serves(url.pathname)) {
      if (peer.knows(url)) entry?.known();
      return peer.upgrade(url, request, socket, head);
    }
    if (consolePort === null || url === null) return refuseUpgrade(socket, failed('no-console').fault);
    if (!knowsHost(request.headers.host, hosts)) return refuseUpgrade(socket, failed('host-unknown').fault);
    proxy.ws(request, socket as never, { target }, head).catch(() => {
      refuseUpgrade(socket, failed('console-unreachable').fault);
    });
  };

  // A measurement may stream for minutes in one request: the peer's own limits end it, not a server timeout. Heads and
  // bodies that stand still are ended by what watches strangers.
  const http = createHttpServer({ requestTimeout: 0, keepAliveTimeout: 15_000, noDelay: true }, handle);
  http.on('upgrade', upgrade);
  const open = new Set<Socket>();
  const enter = (socket: Socket) => {
    open.add(socket);
    const key = keyOf(socket);
    const entry = strangers.enter(socket, plainAddress(socket.remoteAddress ?? ''));
    entries.set(key, entry);
    socket.once('close', () => {
      open.delete(socket);
      if (entries.get(key) === entry) entries.delete(key);
    });
    return entry;
  };
  const secured =
    tls === null
      ? null
      : createTlsServer({
          ...tls,
          minVersion: 'TLSv1.2',
          ALPNProtocols: ['http/1.1'],
          handshakeTimeout: HANDSHAKE_MS,
          noDelay: true,
        });
  secured?.on('secureConnection', (connection) => http.emit('connection', connection));
  secured?.on('tlsClientError', (_, connection) => connection.destroy());
  const server = createServer({ noDelay: true }, (socket) => {
    const first = enter(socket);
    let entry = first;
    sortConnection(socket, {
      idleMs: limits.bodyIdleMs,
      opened: (raw) => {
        // The socket that the server made is gone without a word.
        first.known();
        open.delete(socket);
        entry = enter(raw);
        entry.asked();
      },
      accept: (url, contentLength, raw) => {
        const accepted = peer.acceptUpload(url, contentLength, raw);
        if (!('refusal' in accepted)) entry.known();
        return accepted;
      },
      serve: (connection) => http.emit('connection', connection),
      secure: secured === null ? null : (connection) => secured.emit('connection', connection),
    });
  });
  return Object.assign(server, {
    closeAllConnections: () => {
      for (const socket of open) socket.destroy();
      http.closeAllConnections();
    },
  });
}
