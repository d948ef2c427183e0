import { Agent, createServer as createHttpServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { createServer, type Server, type Socket } from 'node:net';
import type { Duplex } from 'node:stream';
import { createServer as createTlsServer } from 'node:tls';
import { createProxyServer } from 'httpxy';
import { failed } from '@/wire';
import { answerFault, refuseUpgrade } from '../http/answer';
import type { Peer } from '../http/peer';
import { consoleAwayPage } from './console-away-page';
import { sortConnection } from './upload-connection';

/** Where the console listens, or null for a peer without one. */
export interface FrontDoorOptions {
  readonly consolePort: number | null;
  /** Certificate and key as PEM; null: plain HTTP only. */
  readonly tls?: { readonly cert: string; readonly key: string } | null;
}

/** What a stranger may not claim about himself; the proxy fills them in anew. */
const FORWARDED_HEADERS: readonly string[] = [
  'x-forwarded-for',
  'x-forwarded-host',
  'x-forwarded-proto',
  'x-forwarded-port',
  'forwarded',
];

/** A TLS handshake that is not done by then is given up, ms. */
const HANDSHAKE_MS = 10_000;

function dropForwarded(request: IncomingMessage): void {
  const kept = Object.entries(request.headers).filter(([name]) => !FORWARDED_HEADERS.includes(name));
  request.headers = Object.fromEntries(kept);
}

function readUrl(request: IncomingMessage): URL | null {
  try {
    return new URL(request.url ?? '/', 'http://peer.invalid');
  } catch {
    return null;
  }
}

/** The listening server, with what ends every connection at once. */
export type FrontDoor = Server & { closeAllConnections(): void };

/** The one listening port: measurement paths are served by the peer, everything else is handed to the console. */
export function createFrontDoor(peer: Peer, { consolePort, tls = null }: FrontDoorOptions): FrontDoor {
  // A connection of its own for each request: a kept one that the console has just closed would fail for no reason.
  const proxy = createProxyServer({ xfwd: true, agent: new Agent({ keepAlive: false }) });
  const target = { host: '127.0.0.1', port: consolePort ?? 0, protocol: 'http:' };

  const consoleAway = (request: IncomingMessage, response: ServerResponse) => {
    if (response.headersSent) {
      response.destroy();
    } else if (request.headers.accept?.includes('text/html')) {
      response.writeHead(502, { 'Content-Type': 'text/html; charset=utf-8', 'Cache-Control': 'no-store' });
      response.end(consoleAwayPage());
    } else {
      answerFault(request, response, failed('console-unreachable').fault);
    }
  };

  const handle = (request: IncomingMessage, response: ServerResponse) => {
    const url = readUrl(request);
    if (url === null) return answerFault(request, response, failed('path-unknown').fault);
    if (peer.serves(url.pathname)) return peer.handle(url, request, response);
    if (consolePort === null) return answerFault(request, response, failed('no-console').fault);
    dropForwarded(request);
    proxy.web(request, response, { target }).catch(() => consoleAway(request, response));
  };

  const upgrade = (request: IncomingMessage, socket: Duplex, head: Buffer) => {
    socket.on('error', () => socket.destroy());
    const url = readUrl(request);
    if (url !== null && peer.serves(url.pathname)) return peer.upgrade(url, request, socket, head);
    if (consolePort === null || url === null) return refuseUpgrade(socket, failed('no-console').fault);
    dropForwarded(request);
    proxy.ws(request, socket as never, { target }, head).catch(() => {
      refuseUpgrade(socket, failed('console-unreachable').fault);
    });
  };

  // A measurement may stream for minutes in one request: the peer's own limits end it, not a server timeout.
  const http = createHttpServer({ requestTimeout: 0, keepAliveTimeout: 15_000, noDelay: true }, handle);
  http.on('upgrade', upgrade);
  const open = new Set<Socket>();
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
    open.add(socket);
    socket.once('close', () => open.delete(socket));
    sortConnection(socket, {
      opened: (raw) => {
        open.add(raw);
        raw.once('close', () => open.delete(raw));
      },
      accept: (url, contentLength, raw) => peer.acceptUpload(url, contentLength, raw),
      serve: (connection) => http.emit('connection', connection),
      secure: secured === null ? null : (socket) => secured.emit('connection', socket),
    });
  });
  return Object.assign(server, {
    closeAllConnections: () => {
      for (const socket of open) socket.destroy();
      http.closeAllConnections();
    },
  });
}
