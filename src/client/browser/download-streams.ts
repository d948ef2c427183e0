import { PEER_PATHS } from '@/wire';
import { peerUrl, type PeerAddress } from '../run/peer-address';

const READ_BYTES = 512 * 1024;
const RETRY_MS = 200;

async function readStream(url: string, count: (bytes: number) => void): Promise<void> {
  const response = await fetch(url, { cache: 'no-store' });
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

/** Downloads on several connections at once into one reused buffer each, counting what arrives: `bytes` [stream]. */
export function startDownload(peer: PeerAddress): { readonly bytes: readonly number[]; grow(streams: number): void } {
  const bytes: number[] = [];
  const keepReading = async (stream: number) => {
    for (;;) {
      try {
        await readStream(peerUrl(peer, PEER_PATHS.down, stream), (count) => (bytes[stream]! += count));
      } catch {
        // A stream that fails at once is tried again after a pause; the counters show that nothing came.
      }
      await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
    }
  };
  return {
    bytes,
    grow: (streams) => {
      while (bytes.length < streams) {
        bytes.push(0);
        void keepReading(bytes.length - 1);
      }
    },
  };
}
