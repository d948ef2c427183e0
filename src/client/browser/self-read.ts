import type { DownloadReader } from '@/core';
import { readBody } from './read-body';

const SAMPLE_BYTES = 32 * 1024 * 1024;
const MOST_MS = 150;
/** An engine that reads its own memory no sooner has something else to do. */
const PATIENCE_MS = 2000;
/** Less than this says how the browser was held up, not how fast it is. */
const LEAST_BYTES = 8 * 1024 * 1024;

/**
 * What this browser can take in from itself, without a network: a blob read back the way a download is, bits per
 * second, timed from the first bytes on. Null where too little came to tell; rejects where a blob cannot be read so, or
 * not in time.
 * What a run measures near this is the browser, not the network.
 */
export async function selfReadBps(how: Exclude<DownloadReader, 'socket'>): Promise<number | null> {
  let bytes = 0;
  let elapsedMs = 0;
  let startedMs: number | null = null;
  const late = new Promise<never>((_, reject) =>
    setTimeout(() => reject(new Error(`it did not end within ${PATIENCE_MS} ms`)), PATIENCE_MS),
  );
  const read = readBody(new Blob([new Uint8Array(SAMPLE_BYTES)]).stream(), how, (count) => {
    const nowMs = performance.now();
    // What came with the first read took an unknown time.
    if (startedMs !== null) bytes += count;
    startedMs ??= nowMs;
    elapsedMs = nowMs - startedMs;
    return elapsedMs < MOST_MS;
  });
  await Promise.race([read, late]);
  return bytes < LEAST_BYTES || elapsedMs === 0 ? null : (bytes * 8000) / elapsedMs;
}
