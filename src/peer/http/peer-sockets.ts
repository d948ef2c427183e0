import type { IncomingMessage } from 'node:http';
import type { Duplex } from 'node:stream';
import { WebSocketServer, type WebSocket } from 'ws';
import { controlQuestionSchema, encodeEcho, failed, PEER_PATHS, type ControlQuestion } from '@/wire';
import type { Session } from '../session/session';
import type { SessionRegistry } from '../session/session-registry';
import { refuseUpgrade } from './answer';

const LONGEST_FRAME = 256;
/** A session has one control socket and one probe socket; a second probe socket is for one that broke off unnoticed. */
const MOST_SOCKETS = { control: 1, probe: 2 } as const;
/** Probes a second that are echoed, over so long at a time: five times what any client sends. */
const MOST_PROBES = { count: 500, overMs: 5000 } as const;
/** What a probe and its echo take on the wire, headers included; charged to the session. */
const PROBE_BYTES = 2 * 90;
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

function readQuestion(text: string): ControlQuestion | null {
  try {
    return controlQuestionSchema.safeParse(JSON.parse(text)).data ?? null;
  } catch {
    return null;
  }
}

function serveControl(socket: WebSocket, session: Session, sessions: SessionRegistry): void {
  sessions.controlled(session);
  session.attachControl((message) => {
    if (socket.readyState === socket.OPEN) socket.send(JSON.stringify(message));
  });
  socket.on('message', (data, isBinary) => {
    const question = isBinary ? null : readQuestion((data as Buffer).toString());
    switch (question?.kind) {
      case 'udp-counts':
        return session.tell({ kind: 'udp-counts', received: session.udpReceived() });
      case 'receipt':
        session.stopStreams();
        return session.tell({ kind: 'receipt', receipt: sessions.signed(session) });
      case undefined:
        return socket.close(1008, 'not a question');
    }
  });
  const stopWatching = watchAlive(socket);
  socket.on('close', () => {
    stopWatching();
    session.end();
  });
}

/** Who only watches has no other connection: its session lives as long as this one. */
function endWith(socket: WebSocket, session: Session, sessions: SessionRegistry): void {
  sessions.controlled(session);
  const stopWatching = watchAlive(socket);
  socket.on('close', () => {
    stopWatching();
    session.end();
  });
}

function serveProbe(socket: WebSocket, session: Session, monotonicMs: () => number): void {
  let windowMs = monotonicMs();
  let inWindow = 0;
  socket.on('message', (data, isBinary) => {
    const nowMs = monotonicMs();
    const echo = isBinary ? encodeEcho(data as Buffer, nowMs) : null;
    if (echo === null) return socket.close(1008, 'not a probe');
    if (nowMs - windowMs > MOST_PROBES.overMs) [windowMs, inWindow] = [nowMs, 0];
    inWindow += 1;
    if (inWindow > MOST_PROBES.count) return socket.close(1008, 'too many probes');
    if (!session.spend(PROBE_BYTES)) return socket.close(1008, 'limit reached');
    session.seen.echoes += 1;
    socket.send(echo);
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
    const kind = url.pathname === PEER_PATHS.control ? 'control' : 'probe';
    if (session.openSockets(kind) >= MOST_SOCKETS[kind]) {
      refuseUpgrade(socket, failed('limit-sockets', { limit: MOST_SOCKETS[kind] }).fault);
      return;
    }
    // Taken at once: the handshake of a second one must not overtake it.
    const held = session.holdSocket(kind, { destroy: () => socket.destroy() });
    socket.once('close', () => held.release());
    this.#server.handleUpgrade(request, socket, head, (client) => {
      if (session.ended) {
        client.terminate();
        return;
      }
      held.closeBy({ destroy: () => client.close(1000) });
      client.on('error', () => client.terminate());
      if (kind === 'control') serveControl(client, session, this.sessions);
      else {
        if (session.claims.watch === true) endWith(client, session, this.sessions);
        serveProbe(client, session, this.monotonicMs);
      }
    });
  }
}
