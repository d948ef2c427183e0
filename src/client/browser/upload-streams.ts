import { PEER_PATHS } from '@/wire';
import { peerUrl, type PeerAddress } from '../run/peer-address';
import type { Load } from '../run/transport';
import type { TroubleReports } from '../run/trouble-reports';
import { nextRequestBytes, type RequestSizes } from './request-size';

/** Requests of two seconds: long enough that neither gaps nor their heads matter. */
const BLOBS: RequestSizes = { smallest: 256 * 1024, largest: 64 * 1024 * 1024, wantedMs: 2000 };
/** On a long path each gap costs many packets: there a request lasts for most of a direction. */
const LONG_PATH_MS = 100;
const LONG_BLOBS: RequestSizes = { smallest: 8 * 1024 * 1024, largest: 64 * 1024 * 1024, wantedMs: 20_000 };
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

/** The status that the peer answered with; 0 when none came. */
function post(url: string, blob: Blob, running: Set<XMLHttpRequest>): Promise<number> {
  return new Promise((resolve) => {
    const request = new XMLHttpRequest();
    running.add(request);
    request.onloadend = () => {
      running.delete(request);
      resolve(request.status);
    };
    request.open('POST', url);
    request.send(blob);
  });
}

/** Uploads on several connections at once. It counts nothing: the peer does, and tells. */
export function startUpload(
  peer: PeerAddress,
  streams: number,
  mostStreams: number,
  idleRttMs: number | null,
  troubles: TroubleReports,
): Load {
  const shelf = new BlobShelf();
  const sizes = (idleRttMs ?? 0) >= LONG_PATH_MS ? LONG_BLOBS : BLOBS;
  const running = new Set<XMLHttpRequest>();
  let stopped = false;
  let open = 0;
  const keepSending = async (stream: number) => {
    let size = sizes === BLOBS ? 4 * BLOBS.smallest : LONG_BLOBS.smallest;
    while (!stopped) {
      const startedMs = performance.now();
      const status = await post(peerUrl(peer, PEER_PATHS.up, stream), shelf.ofSize(size), running);
      if (stopped) return;
      if (status === 200) {
        size = nextRequestBytes(size, performance.now() - startedMs, sizes);
        continue;
      }
      if (status === 0) troubles.report('upload-broke');
      else troubles.report('upload-refused', `status ${status}`);
      await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
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
