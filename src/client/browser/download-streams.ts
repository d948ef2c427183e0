import { PEER_PATHS } from '@/wire';
import { peerUrl, type PeerAddress } from './peer-session';

const READ_BYTES = 512 * 1024;
const RETRY_MS = 200;

/** Running streams of one direction. `bytes` [stream]: payload counted so far. */
export interface Streams {
  readonly bytes: readonly number[];
  stop(): void;
}

async function readStream(url: string, signal: AbortSignal, count: (bytes: number) => void): Promise<void> {
  const response = await fetch(url, { signal, cache: 'no-store' });
  if (!response.ok || response.body === null) throw new Error(`status ${response.status}`);
  const reader = response.body.getReader({ mode: 'byob' });
  let buffer = new ArrayBuffer(READ_BYTES);
  for (;;) {
    const { done, value } = await reader.read(new Uint8Array(buffer));
    if (value !== undefined) {
      count(value.byteLength);
      buffer = value.buffer;
    }
    if (done) return;
  }
}

/** Downloads on several connections at once into one reused buffer each, counting what arrives. */
export function startDownload(peer: PeerAddress, streams: number): Streams {
  const stopped = new AbortController();
  const bytes = Array.from({ length: streams }, () => 0);
  const keepReading = async (stream: number) => {
    while (!stopped.signal.aborted) {
      try {
        await readStream(peerUrl(peer, PEER_PATHS.down, stream), stopped.signal, (count) => (bytes[stream]! += count));
      } catch {
        if (!stopped.signal.aborted) await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
      }
    }
  };
  for (let stream = 0; stream < streams; stream += 1) void keepReading(stream);
  return { bytes, stop: () => stopped.abort() };
}
