import type { IncomingMessage, ServerResponse } from 'node:http';
import type { Socket } from 'node:net';
import { failed, type Outcome, type PeerFaultCode } from '@/wire';
import type { Closable, Session } from '../session/session';
import { answerFault, answerJson, rawJson } from './answer';

/** Takes the bytes of one upload request, counts them and throws them away. */
export interface UploadSink {
  /** False when the session's limit is used up: the connection must be closed. */
  count(bytes: number): boolean;
  /** The request is complete: the answer as it goes over the wire. */
  finish(keepAlive: boolean): string;
  release(): void;
}

/** Room for one upload request on a stream of a session. Fails when it announces more than the session may move. */
export function openUpload(
  session: Session,
  stream: number,
  announced: number,
  closable: Closable,
  socket: Socket,
): Outcome<UploadSink, PeerFaultCode> {
  if (announced > session.remainingBytes()) return failed('limit-bytes', { limit: session.claims.limits.bytes });
  const release = session.hold('up', stream, closable, socket);
  let bytes = 0;
  session.startCounters();
  return {
    ok: true,
    value: {
      count: (more) => {
        bytes += more;
        session.countUpload(stream, more);
        return session.spend(more);
      },
      finish: (keepAlive) => {
        release();
        return rawJson(200, { bytes }, keepAlive);
      },
      release,
    },
  };
}

/** The same through the HTTP server: for TLS, chunked bodies, and connections that carried something else before. */
export function receiveBulk(
  request: IncomingMessage,
  response: ServerResponse,
  session: Session,
  stream: number,
): void {
  const announced = Number(request.headers['content-length'] ?? 0);
  const opened = openUpload(session, stream, announced, request, request.socket);
  if (!opened.ok) return answerFault(request, response, opened.fault);
  const sink = opened.value;
  let bytes = 0;
  request.on('data', (part: Buffer) => {
    bytes += part.length;
    sink.count(part.length);
  });
  request.on('error', () => request.destroy());
  request.on('close', () => sink.release());
  request.on('end', () => answerJson(response, 200, { bytes }));
}
