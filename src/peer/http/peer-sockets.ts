import type { IncomingMessage } from 'node:http';
import type { Duplex } from 'node:stream';
import { WebSocketServer, type WebSocket } from 'ws';
import { controlQuestionSchema, encodeEcho, failed, PEER_PATHS } from '@/wire';
import type { Session } from '../session/session';
import type { SessionRegistry } from '../session/session-registry';
import { refuseUpgrade } from './answer';

const LONGEST_FRAME = 256;
/**
 * A client that has not answered a ping by the next one is gone, ms. Long enough to outlast a line that is dead for five
 * seconds, and the pause of TCP after it.
 */
const PING_MS = 8000;

/** Ends a socket that no longer answers; returns what stops the watching. */
function watchAlive(socket: WebSocket): () => void {
  let answered = true;
  socket.on('pong', () => (answered = true));
  const timer = setInterval(() => {
    if (!answered) {
      socket.terminate();
      return;
    }
    answered = false;
    socket.ping();
  }, PING_MS);
  return () => clearInterval(timer);
}

function isQuestion(text: string): boolean {
  try {
    return controlQuestionSchema.safeParse(JSON.parse(text)).success;
  } catch {
    return false;
  }
}

function serveControl(socket: WebSocket, session: Session, sessions: SessionRegistry): void {
  sessions.controlled(session);
  session.attachControl((message) => {
    if (socket.readyState === socket.OPEN) socket.send(JSON.stringify(message));
  });
  socket.on('message', (data, isBinary) => {
    if (isBinary || !isQuestion((data as Buffer).toString())) socket.close(1008, 'not a question');
    else session.tell({ kind: 'udp-counts', received: session.udpReceived() });
  });
  const stopWatching = watchAlive(socket);
  socket.on('close', () => {
    stopWatching();
    session.end();
  });
}

function serveProbe(socket: WebSocket, monotonicMs: () => number): void {
  socket.on('message', (data, isBinary) => {
    const echo = isBinary ? encodeEcho(data as Buffer, monotonicMs()) : null;
    if (echo === null) socket.close(1008, 'not a probe');
    else socket.send(echo);
  });
}

/** The two WebSockets of a session: control (counters, end) and probe (echo). */
export class PeerSockets {
  readonly #server = new WebSocketServer({ noServer: true, maxPayload: LONGEST_FRAME, perMessageDeflate: false });

  constructor(
    private readonly sessions: SessionRegistry,
    private readonly monotonicMs: () => number,
  ) {}

  upgrade(url: URL, request: IncomingMessage, socket: Duplex, head: Buffer): void {
    if (url.pathname !== PEER_PATHS.control && url.pathname !== PEER_PATHS.probe) {
      refuseUpgrade(socket, failed('path-unknown').fault);
      return;
    }
    const found = this.sessions.find(url.searchParams.get('session'));
    if (!found.ok) {
      refuseUpgrade(socket, found.fault);
      return;
    }
    const session = found.value;
    this.#server.handleUpgrade(request, socket, head, (client) => {
      if (session.ended) {
        client.terminate();
        return;
      }
      const release = session.holdSocket({ destroy: () => client.close(1000) });
      client.on('close', release);
      client.on('error', () => client.terminate());
      if (url.pathname === PEER_PATHS.control) serveControl(client, session, this.sessions);
      else serveProbe(client, this.monotonicMs);
    });
  }
}
