import type { IncomingMessage, ServerResponse } from 'node:http';
import { failed } from '@/wire';
import type { Session } from '../session/session';
import { answerFault, answerJson } from './answer';

/** Counts what arrives, per stream, and throws it away. The answer says how much this request brought. */
export function receiveBulk(
  request: IncomingMessage,
  response: ServerResponse,
  session: Session,
  stream: number,
): void {
  const announced = Number(request.headers['content-length'] ?? 0);
  if (announced > session.remainingBytes()) {
    answerFault(request, response, failed('limit-bytes', { limit: session.claims.limits.bytes }).fault);
    return;
  }
  const release = session.hold('up', request, request.socket);
  let bytes = 0;
  request.on('data', (part: Buffer) => {
    bytes += part.length;
    session.countUpload(stream, part.length);
    session.spend(part.length);
  });
  request.on('error', () => request.destroy());
  request.on('close', release);
  request.on('end', () => answerJson(response, 200, { bytes }));
  session.startCounters();
}
