/** Waits, or less when aborted: then it resolves at once. */
export function sleep(ms: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve) => {
    if (signal.aborted) return resolve();
    const timer = setTimeout(end, ms);
    function end() {
      clearTimeout(timer);
      signal.removeEventListener('abort', end);
      resolve();
    }
    signal.addEventListener('abort', end);
  });
}
