import { randomBytes } from 'node:crypto';
import type { WebSocket } from 'ws';
import { STREAM_FRAME_BYTES } from '@/wire';
import type { Session } from '../session/session';
import type { UploadSink } from './bulk-up';

/** Random, so that nothing on the way can make it smaller. */
const frame = randomBytes(STREAM_FRAME_BYTES);
/** So many frames wait to be sent at once: enough that the kernel never runs dry. */
const IN_FLIGHT = 32;

/** Sends frames over a WebSocket until the client goes, the session ends, or its bytes are used. */
export function sendFrames(socket: WebSocket, session: Session, stream: number): void {
  let inFlight = 0;
  const send = () => {
    while (inFlight < IN_FLIGHT && socket.readyState === socket.OPEN) {
      const bytes = Math.min(STREAM_FRAME_BYTES, session.remainingBytes());
      // Spending more than there is ends all streams, and says why.
      if (!session.spend(Math.max(bytes, 1))) return socket.close(1008, 'limit reached');
      session.countDownload(stream, bytes);
      inFlight += 1;
      // Sending on only in a later turn lets probes be echoed in between.
      socket.send(frame.subarray(0, bytes), { binary: true }, () => {
        inFlight -= 1;
        setImmediate(send);
      });
    }
  };
  send();
}

/** Counts frames that come over a WebSocket and throws them away. */
export function takeFrames(socket: WebSocket, sink: UploadSink): void {
  socket.on('message', (data, isBinary) => {
    if (!isBinary) socket.close(1008, 'not a stream');
    else if (!sink.count((data as Buffer).length)) socket.close(1008, 'limit reached');
  });
}
