const SAMPLE_BYTES = 32 * 1024 * 1024;
const MOST_MS = 150;
const READ_BYTES = 512 * 1024;
/** Less than this says how the browser was held up, not how fast it is. */
const LEAST_BYTES = 8 * 1024 * 1024;

/**
 * What this browser can take in from itself, without a network: a blob read back the way a download is, bits per
 * second, timed from the first bytes on. Null where that cannot be done, or too little came to tell. What a run measures
 * near this is the browser, not the network.
 */
export async function selfReadBps(): Promise<number | null> {
  try {
    const reader = new Blob([new Uint8Array(SAMPLE_BYTES)]).stream().getReader({ mode: 'byob' });
    let buffer = new ArrayBuffer(READ_BYTES);
    let bytes = 0;
    let startedMs: number | null = null;
    for (;;) {
      const { done, value } = await reader.read(new Uint8Array(buffer));
      const nowMs = performance.now();
      if (value !== undefined) {
        // What came with the first read took an unknown time.
        if (startedMs !== null) bytes += value.byteLength;
        buffer = value.buffer;
      }
      startedMs ??= nowMs;
      const elapsedMs = nowMs - startedMs;
      if (!done && elapsedMs < MOST_MS) continue;
      void reader.cancel();
      return bytes < LEAST_BYTES || elapsedMs === 0 ? null : (bytes * 8000) / elapsedMs;
    }
  } catch {
    return null;
  }
}
