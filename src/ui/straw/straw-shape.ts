import type { StrawSegment } from '@/core';

/** Bore of the straw in picture units: the log of the rate, from 10 Mb/s to 2.5 Gb/s. */
const NARROWEST = 8;
const WIDEST = 52;
const LEAST_LOG = 7;
const MOST_LOG = 9.4;

export function boreOf(rateBps: number): number {
  const share = (Math.log10(Math.max(rateBps, 1)) - LEAST_LOG) / (MOST_LOG - LEAST_LOG);
  return NARROWEST + (WIDEST - NARROWEST) * Math.min(1, Math.max(0, share));
}

/** A segment laid out along the picture. */
export interface LaidSegment {
  readonly segment: StrawSegment;
  readonly fromX: number;
  readonly toX: number;
  readonly bore: number;
  readonly known: boolean;
}

/** How far a kink sags below the straw's line, in picture units. */
const KINK_SAG = 16;
const COLLAR = 10;

/** Lays segments side by side over `width`; one of unknown capacity takes the widest known bore, drawn dashed. */
export function layStraw(segments: readonly StrawSegment[], width: number): LaidSegment[] {
  const known = segments.flatMap(({ capacityBps }) => (capacityBps === null ? [] : [boreOf(capacityBps)]));
  const fallback = known.length === 0 ? boreOf(1e9) : Math.max(...known);
  const each = width / segments.length;
  return segments.map((segment, index) => ({
    segment,
    fromX: index * each,
    toX: (index + 1) * each,
    bore: segment.capacityBps === null ? fallback : boreOf(segment.capacityBps),
    known: segment.capacityBps !== null,
  }));
}

type Point = readonly [number, number];

/** The wall of the straw on one side (−1 above, 1 below); a kink is bent down and narrow. */
function wall(
  laid: readonly LaidSegment[],
  middleY: number,
  side: -1 | 1,
  boreAt: (piece: LaidSegment) => number,
): Point[] {
  return laid.flatMap((piece): Point[] => {
    const y = middleY + (side * boreAt(piece)) / 2;
    const left = piece.fromX + COLLAR;
    const right = piece.toX - COLLAR;
    if (!piece.segment.kink)
      return [
        [left, y],
        [right, y],
      ];
    const middle = (piece.fromX + piece.toX) / 2;
    return [
      [left, y],
      [middle - 12, y + KINK_SAG * 0.7],
      [middle, y + KINK_SAG],
      [middle + 12, y + KINK_SAG * 0.7],
      [right, y],
    ];
  });
}

/** Outline of a tube along the straw, as SVG path data: along the upper wall and back along the lower one. */
export function tubePath(
  laid: readonly LaidSegment[],
  middleY: number,
  boreAt: (piece: LaidSegment) => number,
): string {
  const outline = [...wall(laid, middleY, -1, boreAt), ...wall(laid, middleY, 1, boreAt).reverse()];
  return `M${outline.map(([x, y]) => `${x} ${y}`).join(' L')} Z`;
}
