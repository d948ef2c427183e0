import { addedDelayWords, ageWords, rateFigure } from '@/core';
import type { BoardCell as Cell } from '@/services';
import { VerdictMark } from '../verdict/verdict-mark';
import type { CellMark } from './board-keys';
import { CellStraws } from './cell-straws';

interface BoardCellProps {
  readonly cell: Cell;
  readonly nowMs: number;
  readonly mark: CellMark;
  readonly label: string;
}

/** How far the runs of a set lie apart; absent for a single run. */
function spreadWords({ count, spreadDownBps, spreadUpBps }: Cell): string | undefined {
  if (count < 2) return undefined;
  return `median of ${count} runs, ${rateFigure(spreadDownBps)} down and ${rateFigure(spreadUpBps)} Mb/s up apart`;
}

/**
 * The newest result in one place of the board: two straws, figures, added delay with its word, age, verdict. A board has
 * hundreds of them, so each is made of few parts, styled in globals.css; BoardKeys makes the way
 * to its run one without loading the page anew.
 */
export function BoardCell({ cell, nowMs, mark, label }: BoardCellProps) {
  const figures = `${rateFigure(cell.downBps)} down, ${rateFigure(cell.upBps)} up`;
  return (
    <a
      {...mark}
      href={`/runs/${cell.runId}`}
      aria-label={`${label} ${figures} Mb/s. Open the run.`}
      className="board-cell"
    >
      <CellStraws cell={cell} />
      <b>{rateFigure(cell.downBps)}</b>
      <b>{rateFigure(cell.upBps)}</b>
      <span>
        <VerdictMark verdict={cell.verdict} />
        {cell.linkBelowPlan && <em>kink</em>}
      </span>
      <i title={spreadWords(cell)}>
        {cell.count > 1 ? `${cell.count} × ` : ''}
        {ageWords(nowMs - cell.startedAtMs)}
      </i>
      {cell.addedMs !== null && (
        <small>
          <b>{addedDelayWords(cell.addedMs)}</b> {cell.rating}
        </small>
      )}
    </a>
  );
}
