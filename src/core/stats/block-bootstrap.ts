import { percentile } from './percentile';
import type { RandomSource } from './seeded-random';
import { fewPartsFactor } from './student';

export interface BootstrapOptions {
  /** Samples in one block: long enough that blocks are nearly independent. */
  readonly blockLength: number;
  readonly draws: number;
  readonly random: RandomSource;
}

export interface Interval {
  readonly low: number;
  readonly high: number;
}

/**
 * 95 % interval of a statistic of a time series by the moving-block bootstrap (Künsch 1989): blocks of neighbours are
 * drawn with replacement, so that correlation within a block survives; widened about the statistic by Student's quantile,
 * for a few blocks know little of their own spread. Same unit as `values`.
 * Null when there are fewer than two blocks, because then nothing can be said about the spread.
 */
export function blockBootstrapInterval(
  values: readonly number[],
  statistic: (sample: readonly number[]) => number | null,
  { blockLength, draws, random }: BootstrapOptions,
): Interval | null {
  if (values.length < blockLength * 2) return null;
  const starts = values.length - blockLength + 1;
  const results: number[] = [];
  for (let draw = 0; draw < draws; draw += 1) {
    const sample: number[] = [];
    while (sample.length < values.length) {
      const start = Math.floor(random() * starts);
      for (let k = 0; k < blockLength && sample.length < values.length; k += 1) sample.push(values[start + k]!);
    }
    const value = statistic(sample);
    if (value !== null) results.push(value);
  }
  const [low, high, own] = [percentile(results, 0.025), percentile(results, 0.975), statistic(values)];
  if (low === null || high === null || own === null) return null;
  const factor = fewPartsFactor(values.length / blockLength);
  // Never narrower than what was drawn: the statistic need not lie in its middle.
  return { low: Math.min(low, own - factor * (own - low)), high: Math.max(high, own + factor * (high - own)) };
}
