'use client';

import { linkKindWords } from '@/core';
import type { BoardColumn } from '@/services';
import { DelayMark } from '../verdict/delay-mark';
import { VerdictMark } from '../verdict/verdict-mark';
import type { DrawnBoard, DrawnCell, DrawnRow } from './drawn-cell';
import type { QueueRound } from './round-form';
import { RunHere, StandsBy } from './run-here';
import { Link } from '../parts/link';

const GRAVITY = { starved: 4, thin: 3, capped: 2, 'no verdict': 1, full: 0 } as const;

interface Place {
  readonly cell: DrawnCell;
  readonly column: BoardColumn;
}

/** The place of a device that is worst off, by verdict and then by delay. */
function worstOf(row: DrawnRow, columns: readonly BoardColumn[]): Place | null {
  const places = row.cells.flatMap((cell, index) => (cell === null ? [] : [{ cell, column: columns[index]! }]));
  const delay = ({ cell }: Place) => Number.parseFloat(cell.added ?? '0');
  return places.sort((a, b) => GRAVITY[b.cell.verdict] - GRAVITY[a.cell.verdict] || delay(b) - delay(a))[0] ?? null;
}

interface BoardListProps {
  readonly board: DrawnBoard;
  readonly queue: QueueRound;
}

/** The board in the hand: each device with its worst place, one below the other. */
export function BoardList({ board, queue }: BoardListProps) {
  return (
    <ul aria-label="Devices, each with its worst place">
      {board.groups.flatMap(({ spotName, rows }) =>
        rows.map((row) => {
          const worst = worstOf(row, board.columns);
          const rating = worst?.cell.rating ?? null;
          return (
            <li key={row.deviceId} className="border-t border-hairline py-2">
              <p className="flex items-baseline gap-2">
                <span className="min-w-0 truncate font-medium">{row.deviceName}</span>
                {row.standsBy && <StandsBy />}
                <span className="ml-auto max-w-[40%] shrink-0 truncate text-sm text-quiet">{spotName ?? ''}</span>
              </p>
              {worst === null ? (
                <p className="text-sm text-quiet">Nothing measured yet.</p>
              ) : (
                <Link
                  href={`/runs/${worst.cell.runId}`}
                  className="flex min-h-11 flex-wrap items-center gap-x-3 text-sm"
                >
                  <VerdictMark verdict={worst.cell.verdict} withWord />
                  {rating !== null && <DelayMark rating={rating} />}
                  <span className="figure text-[0.85rem]">
                    {worst.cell.down} / {worst.cell.up}
                  </span>
                  <span className="text-quiet">
                    {linkKindWords(worst.column.linkKind)} · {worst.column.reach}, {worst.cell.age}
                  </span>
                </Link>
              )}
              {row.standsBy && (
                <div className="text-sm text-quiet">
                  <RunHere row={row} reaches={board.reaches} queue={queue} />
                </div>
              )}
            </li>
          );
        }),
      )}
    </ul>
  );
}
