import { median } from '../../stats/percentile';

const LATEST = 3;
const WITHIN_RATIO = 0.1;
const WITHIN_MS = 3;

/**
 * Whether a queue has drained: the median of the last three round trips is within 10 % or 3 ms (whichever is more) of
 * the idle median. `recentRttMs` in the order in which the echoes came; fewer than three is not drained.
 */
export function hasDrained(recentRttMs: readonly number[], idleMedianMs: number): boolean {
  if (recentRttMs.length < LATEST) return false;
  const now = median(recentRttMs.slice(-LATEST))!;
  return now <= idleMedianMs + Math.max(WITHIN_MS, idleMedianMs * WITHIN_RATIO);
}
