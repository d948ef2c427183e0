import Link from 'next/link';
import { addedDelayWords, ageWords, rateFigure } from '@/core';
import type { BoardCell as Cell } from '@/services';
import { StrawBar } from '../straw/straw-bar';
import type { CellMark } from './board-keys';
import { VerdictMark } from '../verdict/verdict-mark';

interface BoardCellProps {
  readonly cell: Cell;
  readonly nowMs: number;
  readonly mark: CellMark;
  readonly label: string;
}

function Rate({ direction, cell }: { readonly direction: 'down' | 'up'; readonly cell: Cell }) {
  const [rateBps, yardstickBps] =
    direction === 'down' ? [cell.downBps, cell.yardstickDownBps] : [cell.upBps, cell.yardstickUpBps];
  return (
    <>
      <StrawBar direction={direction} rateBps={rateBps} yardstickBps={yardstickBps} />
      <span className="figure text-right text-[0.78rem]">
        <span className="sr-only">{direction} </span>
        {rateFigure(rateBps)}
      </span>
    </>
  );
}

/** The newest result in one place of the board: two straws, figures, added delay with its word, age, verdict. */
export function BoardCell({ cell, nowMs, mark, label }: BoardCellProps) {
  return (
    <Link
      {...mark}
      href={`/runs/${cell.runId}`}
      prefetch={false}
      aria-label={label}
      className="group block h-full px-2.5 py-2 hover:bg-sheet focus-visible:bg-sheet"
    >
      <span className="grid grid-cols-[minmax(3.4rem,1fr)_2.7rem] items-center gap-x-2 gap-y-0.5">
        <Rate direction="down" cell={cell} />
        <Rate direction="up" cell={cell} />
      </span>
      <span className="mt-1 flex items-center gap-1.5 whitespace-nowrap text-[0.78rem] text-quiet">
        <VerdictMark verdict={cell.verdict} />
        {cell.linkBelowPlan && <span className="text-starved">kink</span>}
        <span className="ml-auto">
          {cell.count > 1 && <span title="median of so many runs">{cell.count} × </span>}
          {ageWords(nowMs - cell.startedAtMs)}
        </span>
      </span>
      <span className="block whitespace-nowrap text-[0.78rem] text-quiet">
        {cell.addedMs !== null && (
          <>
            <span className="figure text-[0.72rem] text-delay">{addedDelayWords(cell.addedMs)}</span> {cell.rating}
          </>
        )}
      </span>
    </Link>
  );
}
