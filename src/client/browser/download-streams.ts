import type { DownloadReader, TroubleCode } from '@/core';
import { PEER_PATHS } from '@/wire';
import { peerUrl, type PeerAddress } from '../run/peer-address';
import { errorWords } from '../run/trouble-reports';
import { readBody } from './read-body';

const RETRY_MS = 200;
/**
 * An engine without a reader into a buffer of ours takes in as much as comes, however slowly the page reads: seconds of it
 * would wait inside the browser. There a request asks for so much, and the next one follows when that was read: three
 * of them are a second of what such an engine reads at best, and last for the whole of a slow direction without a gap.
 */
const BOUNDED_BYTES = 64 * 1024 * 1024;

interface Reading {
  readonly how: Exclude<DownloadReader, 'socket'>;
  readonly signal: AbortSignal;
  readonly report: (code: TroubleCode, detail: string) => void;
}

/** Reads one response; true when it came to its end. Whatever else happened is reported, with the step that failed. */
async function readStream(
  url: string,
  { how, signal, report }: Reading,
  count: (bytes: number) => void,
): Promise<boolean> {
  let step: TroubleCode = 'download-unanswered';
  let read = 0;
  try {
    const response = await fetch(url, { cache: 'no-store', signal });
    if (!response.ok) {
      report('download-refused', `status ${response.status}`);
      return false;
    }
    step = 'download-unreadable';
    if (response.body === null) throw new TypeError('the answer has no body');
    await readBody(response.body, how, (bytes) => {
      read += bytes;
      if (read > 0) step = 'download-broke';
      count(bytes);
    });
    return true;
  } catch (error) {
    if (!signal.aborted) report(step, errorWords(error));
    return false;
  }
}

/** Downloads on several connections at once, counting what arrives: `bytes` [stream]. */
export function startDownload(
  peer: PeerAddress,
  how: Reading['how'],
  report: Reading['report'],
): { readonly bytes: readonly number[]; grow(streams: number): void; stop(): void } {
  const bytes: number[] = [];
  const ending = new AbortController();
  const reading: Reading = { how, report, signal: ending.signal };
  const keepReading = async (stream: number) => {
    const url = peerUrl(peer, PEER_PATHS.down, stream);
    const asked = how === 'byob' ? url : `${url}&bytes=${BOUNDED_BYTES}`;
    while (!ending.signal.aborted) {
      const whole = await readStream(asked, reading, (count) => (bytes[stream]! += count));
      if (!whole) await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
    }
  };
  return {
    bytes,
    stop: () => ending.abort(),
    grow: (streams) => {
      while (bytes.length < streams) {
        bytes.push(0);
        void keepReading(bytes.length - 1);
      }
    },
  };
}
