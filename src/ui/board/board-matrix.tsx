import { linkKindWords, type Reach } from '@/core';
import type { Board, BoardColumn } from '@/services';
import { BoardCell } from './board-cell';
import { JoinSlip, type JoinFacts } from './join-slip';
import type { QueueRound } from './round-form';
import { RunHere } from './run-here';

const REACH_WORDS: Record<Reach, string> = { local: 'local', internet: 'internet', tunnel: 'tunnel' };

function columnWords({ linkKind, reach }: BoardColumn): string {
  return `${linkKindWords(linkKind)} · ${REACH_WORDS[reach]}`;
}

function EmptyCell({ join, what }: { readonly join: JoinFacts; readonly what: string }) {
  return (
    <JoinSlip
      join={join}
      wanted={`Nothing measured yet: ${what}. Open this there, and run.`}
      trigger={
        <button
          type="button"
          aria-label={`Nothing measured yet: ${what}. Show the code.`}
          className="h-full min-h-14 w-full text-lg text-hairline hover:bg-sheet hover:text-ink focus-visible:text-ink"
        >
          +
        </button>
      }
    />
  );
}

interface BoardMatrixProps {
  readonly board: Board;
  readonly join: JoinFacts;
  readonly queue: QueueRound;
}

/** Devices by spot, one column for each link and reach. An empty place is an invitation. */
export function BoardMatrix({ board, join, queue }: BoardMatrixProps) {
  return (
    <div className="overflow-x-auto">
      <table className="w-full border-collapse">
        <thead>
          <tr className="text-left text-sm text-quiet">
            <th className="w-44 py-1.5 font-normal">
              <span className="sr-only">device</span>
            </th>
            {board.columns.map((column) => (
              <th key={columnWords(column)} className="min-w-40 border-l border-hairline px-3 py-1.5 font-normal">
                {columnWords(column)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {board.groups.flatMap((group) =>
            group.rows.map((row, place) => (
              <tr
                key={row.deviceId}
                className={place === 0 ? 'border-t-[1.5px] border-ink' : 'border-t border-hairline'}
              >
                <th scope="row" className="max-w-48 py-2 pr-3 text-left align-top font-normal">
                  {place === 0 && (
                    <span className="block truncate text-xs text-quiet">{group.spotName ?? 'no spot'}</span>
                  )}
                  <span className="line-clamp-3 break-words">{row.deviceName}</span>
                  {row.standsBy && <RunHere row={row} reaches={board.reaches} queue={queue} />}
                </th>
                {row.cells.map((cell, index) => {
                  const column = columnWords(board.columns[index]!);
                  return (
                    <td key={column} className="h-px border-l border-hairline p-0 align-top">
                      {cell === null ? (
                        <EmptyCell join={join} what={`${row.deviceName}, ${column}`} />
                      ) : (
                        <BoardCell
                          cell={cell}
                          nowMs={board.nowMs}
                          label={`${row.deviceName}, ${column}: ${cell.verdict}. Open the run.`}
                        />
                      )}
                    </td>
                  );
                })}
              </tr>
            )),
          )}
        </tbody>
      </table>
    </div>
  );
}
