import { randomBytes } from 'node:crypto';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { Session } from '../session/session';
import { OPEN_HEADERS } from './answer';

const CHUNK_BYTES = 512 * 1024;
/** Random, so that nothing on the way can make it smaller. */
const chunk = randomBytes(CHUNK_BYTES);

/**
 * Sends until the client goes, the session ends, its bytes are used, or as much as the client asked for was sent. After each drain it lets the event loop turn
 * once (`setImmediate`): without that, one download at full rate starves every probe echo of this process.
 */
export function sendBulk(
  request: IncomingMessage,
  response: ServerResponse,
  session: Session,
  stream: number,
  wantedBytes: number | null,
): void {
  const release = session.hold('down', stream, response, request.socket);
  let open = true;
  response.on('close', () => {
    open = false;
    release();
  });
  response.on('error', () => response.destroy());
  response.writeHead(200, {
    ...OPEN_HEADERS,
    'Content-Type': 'application/octet-stream',
    ...(wantedBytes !== null && { 'Content-Length': wantedBytes }),
  });
  let leftBytes = wantedBytes ?? Infinity;

  const send = () => {
    if (!open) return;
    const bytes = Math.min(CHUNK_BYTES, session.remainingBytes(), leftBytes);
    if (bytes <= 0) {
      session.spend(1);
      return;
    }
    if (!session.spend(bytes)) return;
    leftBytes -= bytes;
    session.countDownload(stream, bytes);
    const more = response.write(bytes === CHUNK_BYTES ? chunk : chunk.subarray(0, bytes));
    if (leftBytes === 0) response.end();
    else if (more) setImmediate(send);
    else response.once('drain', () => setImmediate(send));
  };
  send();
}
