import { addedDelayWords, ageWords, rangeFigure, rateFigure, type BloatRating, type VerdictWord } from '@/core';
import type { Board, BoardCell, BoardRow } from '@/services';

/** The notch of the yardstick stands here, of a hundred; a little room is left for what goes beyond. globals.css draws it there. */
const NOTCH = 87;
const LONGEST = 98;
const SHORTEST = 3;

/** A cell as it is drawn. There are hundreds on a board, and each goes to the browser: it holds no more than is seen. */
export interface DrawnCell {
  readonly runId: string;
  /** Figures in Mb/s. */
  readonly down: string;
  readonly up: string;
  /** Lengths of the straws, of a hundred; the notch stands at 87. */
  readonly downLength: number;
  readonly upLength: number;
  /** Directions without a yardstick: their straws are hollow and have no notch. */
  readonly hollow?: 'hollow-down' | 'hollow-up' | 'hollow-down hollow-up';
  readonly verdict: VerdictWord;
  readonly age: string;
  /** Of a set of several: how many, and how far they lie apart in Mb/s, down and up. */
  readonly set?: readonly [count: number, down: string, up: string];
  /** With its sign, in ms. */
  readonly added?: string;
  readonly rating?: BloatRating;
}

export interface DrawnRow extends Omit<BoardRow, 'cells'> {
  readonly cells: readonly (DrawnCell | null)[];
  /** Places, counted from 0, that do not fit what the board is narrowed to. */
  readonly faded: readonly number[];
  /** Places, counted from 0, that the device cannot have. */
  readonly blank: readonly number[];
}

/** What the matrix draws. */
export interface DrawnBoard extends Pick<Board, 'columns' | 'reaches'> {
  readonly groups: readonly { readonly spotName: string | null; readonly rows: readonly DrawnRow[] }[];
}

function lengthOf(rateBps: number | null, yardstickBps: number | null): number {
  if (rateBps === null) return 0;
  if (yardstickBps === null) return LONGEST;
  return Math.round(Math.max(SHORTEST, Math.min(LONGEST, (rateBps / yardstickBps) * NOTCH)));
}

function hollowOf({ yardstickDownBps, yardstickUpBps }: BoardCell): Pick<DrawnCell, 'hollow'> {
  if (yardstickDownBps === null) return { hollow: yardstickUpBps === null ? 'hollow-down hollow-up' : 'hollow-down' };
  return yardstickUpBps === null ? { hollow: 'hollow-up' } : {};
}

export function drawnCell(cell: BoardCell, nowMs: number): DrawnCell {
  const { count, spreadDownBps, spreadUpBps } = cell;
  return {
    runId: cell.runId,
    down: cell.rangeDownBps === null ? rateFigure(cell.downBps) : rangeFigure(cell.rangeDownBps),
    up: cell.rangeUpBps === null ? rateFigure(cell.upBps) : rangeFigure(cell.rangeUpBps),
    downLength: lengthOf(cell.downBps ?? cell.rangeDownBps?.low ?? null, cell.yardstickDownBps),
    upLength: lengthOf(cell.upBps ?? cell.rangeUpBps?.low ?? null, cell.yardstickUpBps),
    ...hollowOf(cell),
    verdict: cell.verdict,
    age: ageWords(nowMs - cell.startedAtMs),
    ...(count > 1 && { set: [count, rateFigure(spreadDownBps), rateFigure(spreadUpBps)] as const }),
    ...(cell.addedMs !== null && { added: addedDelayWords(cell.addedMs).replace(/ ms$/, '') }),
    ...(cell.rating !== null && { rating: cell.rating }),
  };
}

export function drawnBoard({ groups, columns, reaches, nowMs }: Board): DrawnBoard {
  const drawnRow = ({ cells, ...row }: BoardRow): DrawnRow => ({
    ...row,
    cells: cells.map(({ cell }) => cell && drawnCell(cell, nowMs)),
    faded: cells.flatMap(({ kept }, place) => (kept ? [] : [place])),
    blank: cells.flatMap(({ cell, possible }, place) => (cell === null && !possible ? [place] : [])),
  });
  return { columns, reaches, groups: groups.map(({ spotName, rows }) => ({ spotName, rows: rows.map(drawnRow) })) };
}
