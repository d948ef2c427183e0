import { STATUS_CODES, type IncomingMessage, type ServerResponse } from 'node:http';
import type { Duplex } from 'node:stream';
import { PEER_FAULTS, PROBLEM_MEDIA_TYPE, problemOf, type Fault, type PeerFaultCode } from '@/wire';

/** Pages of any console may measure against a peer: tickets, not origins, are what protects it. */
export const OPEN_HEADERS = {
  'Access-Control-Allow-Origin': '*',
  'Timing-Allow-Origin': '*',
  'Cache-Control': 'no-store',
} as const;

export function answerJson(response: ServerResponse, status: number, body: unknown): void {
  response.writeHead(status, { ...OPEN_HEADERS, 'Content-Type': 'application/json' });
  response.end(JSON.stringify(body));
}

/** A whole JSON answer as it goes over the wire, for connections that are served without the HTTP server. */
export function rawJson(status: number, body: unknown, keepAlive: boolean, mediaType = 'application/json'): string {
  const text = JSON.stringify(body);
  const headers = {
    ...OPEN_HEADERS,
    'Content-Type': mediaType,
    'Content-Length': Buffer.byteLength(text),
    Connection: keepAlive ? 'keep-alive' : 'close',
  };
  const lines = Object.entries(headers).map(([name, value]) => `${name}: ${value}\r\n`);
  return `HTTP/1.1 ${status} ${STATUS_CODES[status] ?? ''}\r\n${lines.join('')}\r\n${text}`;
}

/** Answers with problem details (RFC 9457). What is still arriving is not read; the connection then closes. */
export function answerFault(request: IncomingMessage, response: ServerResponse, fault: Fault<PeerFaultCode>): void {
  const problem = problemOf(PEER_FAULTS, fault);
  const unread = !request.complete && request.method === 'POST';
  response.writeHead(problem.status, {
    ...OPEN_HEADERS,
    'Content-Type': PROBLEM_MEDIA_TYPE,
    ...(unread ? { Connection: 'close' } : {}),
  });
  response.end(JSON.stringify(problem), () => {
    if (unread) request.destroy();
  });
}

/** The same as it goes over the wire; the connection then closes. */
export function rawFault(fault: Fault<PeerFaultCode>): string {
  const problem = problemOf(PEER_FAULTS, fault);
  return rawJson(problem.status, problem, false, PROBLEM_MEDIA_TYPE);
}

/** The same for a WebSocket that is not let in. */
export function refuseUpgrade(socket: Duplex, fault: Fault<PeerFaultCode>): void {
  socket.end(rawFault(fault));
}
