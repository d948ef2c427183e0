const STEPS = 10;
/** A clock of 1 ms makes ten steps in this time; a coarser one some. */
const MOST_MS = 15;
/** A clock that stands still ends the watching too. */
const MOST_READS = 1_000_000;

/**
 * The smallest step that a clock was seen to make, ms: 1 in engines that round it, far less elsewhere. Spins for at most
 * 15 ms; null when it did not move at all.
 */
export function clockStepMs(nowMs: () => number): number | null {
  const startedMs = nowMs();
  let least: number | null = null;
  let before = startedMs;
  for (let reads = 0, steps = 0; reads < MOST_READS && steps < STEPS && before - startedMs < MOST_MS; reads += 1) {
    const now = nowMs();
    if (now === before) continue;
    least = Math.min(least ?? Infinity, now - before);
    before = now;
    steps += 1;
  }
  return least;
}
