import { Transform } from 'node:stream';
import type { IncomingMessage } from 'node:http';

/** Whether a request brings a body. */
export function hasBody({ headers }: IncomingMessage): boolean {
  return headers['transfer-encoding'] !== undefined || Number(headers['content-length'] ?? 0) > 0;
}

/** Gives a body up that stands still: no byte of it in `idleMs`. */
export function watchBody(request: IncomingMessage, idleMs: number): void {
  if (!hasBody(request)) return;
  let seen = -1;
  const timer = setInterval(() => {
    const now = request.socket.bytesRead;
    if (request.complete) return clearInterval(timer);
    if (now === seen) request.socket.destroy();
    seen = now;
  }, idleMs / 2);
  request.once('close', () => clearInterval(timer));
}

/** Lets so many bytes of a body through; with more of them `onTooMany` is called, once, and nothing more is taken. */
export function limitedBody(request: IncomingMessage, mostBytes: number, onTooMany: () => void): Transform {
  let bytes = 0;
  const limited = new Transform({
    transform: (chunk: Buffer, _, done) => {
      bytes += chunk.length;
      if (bytes <= mostBytes) return done(null, chunk);
      request.unpipe(limited);
      request.pause();
      onTooMany();
      done();
    },
  });
  request.pipe(limited);
  request.on('error', () => limited.destroy());
  return limited;
}

/**
 * Takes the rest of a body that is not wanted and throws it away, up to `mostBytes`, then calls `answer`: whoever still
 * writes when a connection is closed never reads what was answered.
 */
export function throwAway(request: IncomingMessage, mostBytes: number, answer: () => void): void {
  let bytes = 0;
  let answered = false;
  const end = () => {
    if (answered) return;
    answered = true;
    answer();
  };
  request.on('data', (chunk: Buffer) => {
    bytes += chunk.length;
    if (bytes <= mostBytes) return;
    request.pause();
    end();
  });
  request.once('end', end);
  request.resume();
}
