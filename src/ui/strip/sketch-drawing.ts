import type { RunSketch } from '@/core';

export const SKETCH = { width: 128, height: 36, axis: 13 } as const;
const REACH = 12;
const LANE_TOP = 28;
const GAP = 0.7;
/** A bar that is too low to be seen is drawn as high as this. */
const LOWEST = 0.6;
/** The highest value of a direction and of the delay lane is at least this: bits per second, ms. */
const LEAST_TOP = { rateBps: 1, delayMs: 20 } as const;

/** The paths of a sketch, in a drawing of SKETCH's size. Bars are upright strokes, each as wide as its share. */
export interface SketchDrawing {
  readonly down: string;
  readonly up: string;
  readonly delay: string;
  readonly downWidth: number;
  readonly upWidth: number;
}

function topOf(values: readonly (number | null)[], least: number): number {
  return Math.max(least, ...values.filter((value) => value !== null));
}

const middleOf = (index: number, count: number) => (((index + 0.5) * SKETCH.width) / count).toFixed(1);

function barsOf(values: readonly (number | null)[], sign: '-' | ''): string {
  const top = topOf(values, LEAST_TOP.rateBps);
  return values
    .map((value, index) => {
      if (value === null) return '';
      const height = Math.max(LOWEST, (value / top) * REACH).toFixed(1);
      return `M${middleOf(index, values.length)} ${SKETCH.axis}v${sign}${height}`;
    })
    .join('');
}

function dotsOf(values: readonly (number | null)[]): string {
  const top = topOf(values, LEAST_TOP.delayMs);
  return values
    .map((value, index) => {
      if (value === null) return '';
      const y = SKETCH.height - 1 - (value / top) * (SKETCH.height - LANE_TOP);
      return `M${middleOf(index, values.length)} ${y.toFixed(1)}h0`;
    })
    .join('');
}

const widthOf = (values: readonly unknown[]) => Number((SKETCH.width / values.length - GAP).toFixed(2));

export function sketchDrawing({ downBps, upBps, delayMs }: RunSketch): SketchDrawing {
  return {
    down: barsOf(downBps, '-'),
    up: barsOf(upBps, ''),
    delay: dotsOf(delayMs),
    downWidth: widthOf(downBps),
    upWidth: widthOf(upBps),
  };
}
