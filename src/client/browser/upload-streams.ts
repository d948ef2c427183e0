import { PEER_PATHS } from '@/wire';
import { peerUrl, type PeerAddress } from '../run/peer-address';
import type { Load } from '../run/transport';

/** A request should last about this long, ms: long enough that neither gaps nor its head matter. */
const WANTED_REQUEST_MS = 2000;
const SMALLEST_BLOB = 256 * 1024;
const LARGEST_BLOB = 64 * 1024 * 1024;
const PATTERN_BYTES = 256 * 1024;
const RETRY_MS = 200;

/** One blob for each size, built once and sent again and again: only blobs upload at full rate. */
class BlobShelf {
  readonly #blobs = new Map<number, Blob>();
  readonly #pattern: Uint8Array<ArrayBuffer>;

  constructor() {
    this.#pattern = new Uint8Array(PATTERN_BYTES);
    for (let at = 0; at < PATTERN_BYTES; at += 65_536) crypto.getRandomValues(this.#pattern.subarray(at, at + 65_536));
  }

  ofSize(sizeBytes: number): Blob {
    const known = this.#blobs.get(sizeBytes);
    if (known !== undefined) return known;
    const blob = new Blob(Array.from({ length: sizeBytes / PATTERN_BYTES }, () => this.#pattern));
    this.#blobs.set(sizeBytes, blob);
    return blob;
  }
}

/** The next request's size, a power of two: what would have taken that long at the rate of the last one. */
export function nextBlobBytes(lastBytes: number, lastMs: number): number {
  const wanted = (lastBytes * WANTED_REQUEST_MS) / Math.max(lastMs, 1);
  const size = 2 ** Math.round(Math.log2(Math.max(wanted, 1)));
  return Math.min(LARGEST_BLOB, Math.max(SMALLEST_BLOB, Math.min(size, lastBytes * 8)));
}

function post(url: string, blob: Blob, running: Set<XMLHttpRequest>): Promise<boolean> {
  return new Promise((resolve) => {
    const request = new XMLHttpRequest();
    running.add(request);
    request.onloadend = () => {
      running.delete(request);
      resolve(request.status === 200);
    };
    request.open('POST', url);
    request.send(blob);
  });
}

/** Uploads on several connections at once. It counts nothing: the peer does, and tells. */
export function startUpload(peer: PeerAddress, streams: number, mostStreams: number): Load {
  const shelf = new BlobShelf();
  const running = new Set<XMLHttpRequest>();
  let stopped = false;
  let open = 0;
  const keepSending = async (stream: number) => {
    let size = 4 * SMALLEST_BLOB;
    while (!stopped) {
      const startedMs = performance.now();
      const arrived = await post(peerUrl(peer, PEER_PATHS.up, stream), shelf.ofSize(size), running);
      if (stopped) return;
      if (arrived) size = nextBlobBytes(size, performance.now() - startedMs);
      else await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
    }
  };
  const grow = (wanted: number) => {
    for (; open < Math.min(wanted, mostStreams); open += 1) void keepSending(open);
  };
  grow(streams);
  return {
    grow,
    stop: () => {
      stopped = true;
      for (const request of running) request.abort();
    },
  };
}
