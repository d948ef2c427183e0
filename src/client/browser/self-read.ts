const SAMPLE_BYTES = 32 * 1024 * 1024;
const MOST_MS = 150;
const READ_BYTES = 512 * 1024;

/**
 * What this browser can take in from itself, without a network: a blob read back the way a download is, bits per
 * second. Null where that cannot be done. What a run measures near this is the browser, not the network.
 */
export async function selfReadBps(): Promise<number | null> {
  try {
    const reader = new Blob([new Uint8Array(SAMPLE_BYTES)]).stream().getReader({ mode: 'byob' });
    let buffer = new ArrayBuffer(READ_BYTES);
    let bytes = 0;
    const startedMs = performance.now();
    for (;;) {
      const { done, value } = await reader.read(new Uint8Array(buffer));
      if (value !== undefined) {
        bytes += value.byteLength;
        buffer = value.buffer;
      }
      const elapsedMs = performance.now() - startedMs;
      if (!done && elapsedMs < MOST_MS) continue;
      void reader.cancel();
      return bytes === 0 || elapsedMs === 0 ? null : (bytes * 8000) / elapsedMs;
    }
  } catch {
    return null;
  }
}
