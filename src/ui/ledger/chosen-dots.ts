import { median } from '@/core';
import type { DrawnRun } from './drawn-run';

/** What of chosen runs is drawn. */
export const DRAWN = ['down', 'up', 'added'] as const;
export type Drawn = (typeof DRAWN)[number];

/** Chosen runs as dots: each quantity over time, from 0 up. Places in shares of the width and the height, from the left and the foot. */
export interface DotLane {
  readonly drawn: Drawn;
  readonly dots: readonly { readonly id: string; readonly x: number; readonly y: number }[];
  readonly median: number;
  readonly medianY: number;
  readonly least: number;
  readonly most: number;
}

/** More dots than this say no more. */
export const MOST_DOTS = 500;

/** Lanes of what at least two of the runs have. Runs that did not measure it have no dot there. */
export function dotLanes(runs: readonly Pick<DrawnRun, 'id' | 'figures'>[]): DotLane[] {
  const times = runs.map(({ figures }) => figures.atMs);
  const [first, last] = [Math.min(...times), Math.max(...times)];
  return DRAWN.flatMap((drawn): DotLane[] => {
    const known = runs.flatMap(({ id, figures }) =>
      figures[drawn] === null ? [] : [{ id, atMs: figures.atMs, value: figures[drawn] }],
    );
    const middle = median(known.map(({ value }) => value));
    if (known.length < 2 || middle === null) return [];
    const values = known.map(({ value }) => value);
    const [least, most] = [Math.min(...values), Math.max(...values)];
    // What load added may have been a little less than nothing.
    const foot = Math.min(0, least);
    const height = most - foot || 1;
    const step = Math.ceil(known.length / MOST_DOTS);
    return [
      {
        ...{ drawn, median: middle, medianY: (middle - foot) / height, least, most },
        dots: known
          .filter((_, place) => place % step === 0)
          .map(({ id, atMs, value }) => ({
            ...{ id, y: (value - foot) / height },
            x: last === first ? 0.5 : (atMs - first) / (last - first),
          })),
      },
    ];
  });
}
