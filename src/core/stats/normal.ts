import type { RandomSource } from './seeded-random';

/** A draw from the standard normal distribution (Box and Muller, 1958). */
export function normal(random: RandomSource): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}
