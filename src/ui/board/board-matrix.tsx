'use client';

import { useState } from 'react';
import { linkKindWords } from '@/core';
import type { BoardColumn } from '@/services';
import { VerdictShapes } from '../verdict/verdict-shapes';
import { BoardCell } from './board-cell';
import { BoardKeys, type CellMark } from './board-keys';
import type { DrawnBoard } from './drawn-cell';
import { EmptyCell, EmptyRunCell } from './empty-cell';
import { JoinSlipAt, type JoinFacts, type WantedPlace } from './join-slip';
import type { QueueRound } from './round-form';
import { FIRST_ROWS, useGrowingRows } from './growing-rows';
import { RunHere, StandsBy } from './run-here';

function columnWords({ linkKind, reach }: BoardColumn): string {
  return `${linkKindWords(linkKind)} · ${reach}`;
}

/** So many columns fit beside the names of devices on a desk's screen, and so many where each does without its straws. */
const MOST_BESIDE = { wide: 7, narrow: 9 } as const;

interface BoardMatrixProps {
  readonly board: DrawnBoard;
  readonly join: JoinFacts;
  readonly queue: QueueRound;
}

/** Devices by spot, one column for each link and reach. An empty place is an invitation. */
export function BoardMatrix({ board, join, queue }: BoardMatrixProps) {
  const [wanted, setWanted] = useState<WantedPlace | null>(null);
  /** Pressed again, it closes. */
  const askFor = (place: WantedPlace) => setWanted((now) => (now?.pressed === place.pressed ? null : place));
  const rows = board.groups.flatMap((group) =>
    group.rows.map((row, place) => ({ row, spotName: group.spotName, first: place === 0 })),
  );
  const shown = useGrowingRows(rows.length);
  const narrow = board.columns.length > MOST_BESIDE.wide;
  // Where all of them fit, the head can stay while rows go by.
  const fits = board.columns.length <= MOST_BESIDE.narrow;
  const columns = board.columns.map((column) => ({ ...column, words: columnWords(column) }));
  const markOf = (row: number, column: number): CellMark => ({
    ...{ 'data-row': row, 'data-column': column, tabIndex: row === 0 && column === 0 ? 0 : -1 },
  });
  return (
    <BoardKeys
      fits={fits}
      queue={queue}
      deviceOf={(row) => rows[row]!.row}
      reachOf={(column) => board.columns[column]!.reach}
    >
      <VerdictShapes />
      <table
        className={`board-places w-full border-collapse ${narrow ? 'narrow' : ''}`}
        aria-label="Devices by link and reach"
      >
        <thead>
          <tr className={`bg-paper text-left text-sm text-quiet ${fits ? 'z-[3] lg:sticky lg:top-12' : ''}`}>
            <th className="sticky left-0 z-[2] w-44 min-w-40 bg-paper py-1 font-normal">
              <span className="sr-only">device</span>
            </th>
            {columns.map(({ words }) => (
              <th
                key={words}
                className={`border-l border-hairline px-1.5 py-1 font-normal ${narrow ? 'min-w-[6.6rem] align-bottom leading-tight' : 'min-w-[8.6rem] whitespace-nowrap'}`}
              >
                {words}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, shown).map(({ row, spotName, first }, rowIndex) => (
            <tr key={row.deviceId} className={first ? 'border-t-[1.5px] border-ink' : 'border-t border-hairline'}>
              <th
                scope="row"
                className="sticky left-0 z-[1] max-w-44 bg-paper py-0.5 pr-2 text-left align-middle font-normal"
              >
                <span className="flex min-w-0 items-baseline gap-1.5 leading-[1.15rem]">
                  <span className="truncate" title={row.deviceName}>
                    {row.deviceName}
                  </span>
                  {row.standsBy && <StandsBy />}
                </span>
                <span className="board-second flex h-[1.15rem] min-w-0 items-center gap-2 overflow-hidden text-xs text-quiet">
                  <span className="spot truncate">{spotName ?? 'no spot'}</span>
                  {row.standsBy && <RunHere row={row} reaches={board.reaches} queue={queue} />}
                </span>
              </th>
              {row.cells.map((cell, index) => {
                const { words, linkKind, reach } = columns[index]!;
                const mark = markOf(rowIndex, index);
                const place = `${row.deviceName}, ${words}`;
                return (
                  <td key={words} className={row.faded.includes(index) ? 'opacity-35' : undefined}>
                    {cell !== null ? (
                      <BoardCell cell={cell} mark={mark} place={place} />
                    ) : row.blank.includes(index) || reach === 'between' ? null : row.standsBy &&
                      row.linkKind === linkKind ? (
                      <EmptyRunCell mark={mark} place={place} deviceId={row.deviceId} reach={reach} queue={queue} />
                    ) : (
                      <EmptyCell mark={mark} place={place} onWanted={askFor} />
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length > FIRST_ROWS && (
        <noscript>
          <p className="mt-2 text-sm text-quiet">
            {rows.length - FIRST_ROWS} more devices need a script to be shown; or narrow the board by name.
          </p>
        </noscript>
      )}
      {wanted !== null && <JoinSlipAt join={join} wanted={wanted} onClose={() => setWanted(null)} />}
    </BoardKeys>
  );
}
