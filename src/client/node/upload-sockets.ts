import { randomBytes } from 'node:crypto';
import { PEER_PATHS } from '@/wire';
import { peerUrl, type PeerAddress } from '../run/peer-address';
import type { Load } from '../run/transport';
import type { TroubleReports } from '../run/trouble-reports';
import { rawRequest, type RawRequest } from './raw-request';

const CHUNK_BYTES = 1024 * 1024;
const RETRY_MS = 200;

/** Writes `totalBytes` of random data as fast as the connection takes them. */
function pour({ socket }: RawRequest, chunk: Buffer, totalBytes: number): void {
  let left = totalBytes;
  const write = () => {
    while (left > 0 && socket.writable) {
      const bytes = Math.min(left, CHUNK_BYTES);
      left -= bytes;
      if (socket.write(bytes === CHUNK_BYTES ? chunk : chunk.subarray(0, bytes))) continue;
      // Other work of this process gets its turn: the probes share it.
      socket.once('drain', () => setImmediate(write));
      return;
    }
  };
  write();
}

/**
 * Uploads on several connections at once, in requests of `requestBytes`. Counts nothing that becomes a figure: the peer
 * does, and tells. `onSent` hears what a connection took, when it ends.
 */
export function startUpload(
  peer: PeerAddress,
  streams: number,
  requestBytes: number,
  onSent: (bytes: number) => void,
  troubles: TroubleReports,
): Load {
  const chunk = randomBytes(CHUNK_BYTES);
  const running = new Set<RawRequest>();
  let stopped = false;
  let opened = 0;
  const push = (stream: number) => {
    if (stopped) return;
    let answered: number | null = null;
    const request = rawRequest(
      new URL(peerUrl(peer, PEER_PATHS.up, stream)),
      'POST',
      { 'Content-Type': 'application/octet-stream', 'Content-Length': String(requestBytes), Connection: 'close' },
      {
        // An answer means that the request is over, taken or refused.
        onStatus: (status) => {
          answered = status;
          request.destroy();
        },
        onBody: () => undefined,
        onClose: () => {
          running.delete(request);
          onSent(request.socket.bytesWritten);
          if (stopped) return;
          if (answered === null) troubles.report('upload-broke');
          else if (answered !== 200) troubles.report('upload-refused', `status ${answered}`);
          setTimeout(() => push(stream), RETRY_MS);
        },
      },
    );
    running.add(request);
    pour(request, chunk, requestBytes);
  };
  const grow = (wanted: number) => {
    for (; opened < wanted; opened += 1) push(opened);
  };
  grow(streams);
  return {
    grow,
    stop: () => {
      stopped = true;
      for (const request of running) request.destroy();
    },
  };
}
