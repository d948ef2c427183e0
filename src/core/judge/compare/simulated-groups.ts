import type { RandomSource } from '../../stats/seeded-random';

/** Shapes of noise that groups of runs are drawn with, to find out how often a statistic is wrong. */
export const NOISE_SHAPES = ['normal', 'skewed', 'two-humped'] as const;
export type NoiseShape = (typeof NOISE_SHAPES)[number];

/** One draw of a shape of about unit spread. */
export function drawNoise(shape: NoiseShape, random: RandomSource): number {
  const uniform = () => 1 - random();
  const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * random());
  switch (shape) {
    case 'normal':
      return normal();
    case 'skewed':
      // A line that is usually well and sometimes badly disturbed.
      return Math.exp(normal()) / 2;
    case 'two-humped':
      return (random() < 0.5 ? -1.5 : 1.5) + 0.3 * normal();
  }
}

export function drawGroup(shape: NoiseShape, size: number, random: RandomSource): number[] {
  return Array.from({ length: size }, () => drawNoise(shape, random));
}
