import type { IncomingMessage, ServerResponse } from 'node:http';
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

/** The same for a WebSocket that is not let in. */
export function refuseUpgrade(socket: Duplex, fault: Fault<PeerFaultCode>): void {
  const problem = problemOf(PEER_FAULTS, fault);
  const body = JSON.stringify(problem);
  socket.end(
    `HTTP/1.1 ${problem.status} ${problem.title}\r\nContent-Type: ${PROBLEM_MEDIA_TYPE}\r\n` +
      `Content-Length: ${Buffer.byteLength(body)}\r\nConnection: close\r\n\r\n${body}`,
  );
}
