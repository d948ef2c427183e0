import { normal } from '../../stats/normal';
import type { RandomSource } from '../../stats/seeded-random';

/** Shapes of noise that groups of runs are drawn with, to find out how often a statistic is wrong. */
export const NOISE_SHAPES = ['normal', 'skewed', 'two-humped'] as const;
export type NoiseShape = (typeof NOISE_SHAPES)[number];

/** One draw of a shape of about unit spread. */
export function drawNoise(shape: NoiseShape, random: RandomSource): number {
  switch (shape) {
    case 'normal':
      return normal(random);
    case 'skewed':
      // A line that is usually well and sometimes badly disturbed.
      return Math.exp(normal(random)) / 2;
    case 'two-humped':
      return (random() < 0.5 ? -1.5 : 1.5) + 0.3 * normal(random);
  }
}

export function drawGroup(shape: NoiseShape, size: number, random: RandomSource): number[] {
  return Array.from({ length: size }, () => drawNoise(shape, random));
}
