'use client';

import { linkKindWords, type Reach } from '@/core';
import type { Board, BoardColumn, BoardRow } from '@/services';
import { BoardCell } from './board-cell';
import { BoardKeys, type CellMark } from './board-keys';
import { CellStripes } from './cell-straws';
import { EmptyCell } from './empty-cell';
import type { JoinFacts } from './join-slip';
import type { QueueRound } from './round-form';
import { RunHere } from './run-here';

const REACH_WORDS: Record<Reach, string> = { local: 'local', internet: 'internet', tunnel: 'tunnel' };

function columnWords({ linkKind, reach }: BoardColumn): string {
  return `${linkKindWords(linkKind)} · ${REACH_WORDS[reach]}`;
}

interface BoardMatrixProps {
  readonly board: Pick<Board, 'groups' | 'columns' | 'reaches' | 'nowMs'>;
  readonly join: JoinFacts;
  readonly queue: QueueRound;
}

/** Devices by spot, one column for each link and reach. An empty place is an invitation. */
export function BoardMatrix({ board, join, queue }: BoardMatrixProps) {
  const rows = board.groups.flatMap((group) =>
    group.rows.map((row, place) => ({ row, spotName: group.spotName, first: place === 0 })),
  );
  const markOf = (row: BoardRow, rowIndex: number, column: BoardColumn, columnIndex: number): CellMark => ({
    'data-row': rowIndex,
    'data-column': columnIndex,
    'data-device': row.deviceId,
    'data-name': row.deviceName,
    'data-reach': column.reach,
    'data-stands': row.standsBy ? 'yes' : 'no',
    tabIndex: rowIndex === 0 && columnIndex === 0 ? 0 : -1,
  });
  return (
    <BoardKeys queue={queue}>
      <CellStripes />
      <table className="w-full border-collapse" aria-label="Devices by link and reach">
        <thead>
          <tr className="text-left text-sm text-quiet">
            <th className="sticky left-0 z-[1] w-52 min-w-48 bg-paper py-1.5 font-normal">
              <span className="sr-only">device</span>
            </th>
            {board.columns.map((column) => (
              <th
                key={columnWords(column)}
                className="min-w-[8.4rem] border-l border-hairline px-2.5 py-1.5 font-normal"
              >
                {columnWords(column)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ row, spotName, first }, rowIndex) => (
            <tr key={row.deviceId} className={first ? 'border-t-[1.5px] border-ink' : 'border-t border-hairline'}>
              <th
                scope="row"
                className="sticky left-0 z-[1] max-w-52 bg-paper py-2 pr-3 text-left align-top font-normal"
              >
                {first && <span className="block truncate text-xs text-quiet">{spotName ?? 'no spot'}</span>}
                <span className="line-clamp-3 break-words">{row.deviceName}</span>
                {row.standsBy && <RunHere row={row} reaches={board.reaches} queue={queue} />}
              </th>
              {row.cells.map(({ cell, kept }, index) => {
                const column = board.columns[index]!;
                const words = columnWords(column);
                const mark = markOf(row, rowIndex, column, index);
                return (
                  <td key={words} className={`h-px border-l border-hairline p-0 align-top ${kept ? '' : 'opacity-35'}`}>
                    {cell === null ? (
                      <EmptyCell
                        join={join}
                        mark={mark}
                        what={`${row.deviceName}, ${words}`}
                        runs={row.standsBy && row.linkKind === column.linkKind ? queue : null}
                      />
                    ) : (
                      <BoardCell
                        cell={cell}
                        mark={mark}
                        nowMs={board.nowMs}
                        label={`${row.deviceName}, ${words}: ${cell.verdict}.`}
                      />
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </BoardKeys>
  );
}
