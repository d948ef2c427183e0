import type { Interval } from '../../stats/block-bootstrap';

const ALPHA = 0.05;
/** From so many values on the binomial is as good as normal. */
const MANY = 200;

/**
 * 95 % interval of a median by the order statistics (Hollander & Wolfe, ch. 3: the interval of the sign test): its ends are
 * values that were measured. Null for fewer than six values: then no two of them hold it in 95 of 100 cases. Example: of
 * 1, 2, … 10 it is 2 to 9.
 */
export function medianInterval(values: readonly number[]): Interval | null {
  const n = values.length;
  const sorted = [...values].sort((a, b) => a - b);
  const outside = n > MANY ? Math.floor(n / 2 - 0.98 * Math.sqrt(n)) : mostOutside(n);
  return outside < 1 ? null : { low: sorted[outside - 1]!, high: sorted[n - outside]! };
}

/** The largest place from either end such that the median lies beyond both with a chance of 5 % at most. */
function mostOutside(n: number): number {
  let chance = 2 ** -n;
  let sum = 0;
  for (let place = 1; place <= n / 2; place += 1) {
    sum += chance;
    if (2 * sum > ALPHA) return place - 1;
    chance = (chance * (n - place + 1)) / place;
  }
  return Math.floor(n / 2);
}
