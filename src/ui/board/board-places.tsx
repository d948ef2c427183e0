'use client';

import { useSyncExternalStore } from 'react';
import { BoardList } from './board-list';
import { BoardMatrix } from './board-matrix';
import type { DrawnBoard } from './drawn-cell';
import type { JoinFacts } from './join-slip';
import type { QueueRound } from './round-form';

const IN_THE_HAND = '(max-width: 47.99rem)';

function onChange(changed: () => void): () => void {
  const query = window.matchMedia(IN_THE_HAND);
  query.addEventListener('change', changed);
  return () => query.removeEventListener('change', changed);
}

interface BoardPlacesProps {
  readonly board: DrawnBoard;
  readonly join: JoinFacts;
  readonly queue: QueueRound;
}

/** The matrix on a desk, the list in the hand: one of them, for a board may have hundreds of places. */
export function BoardPlaces(props: BoardPlacesProps) {
  const inTheHand = useSyncExternalStore(
    onChange,
    () => window.matchMedia(IN_THE_HAND).matches,
    () => false,
  );
  return inTheHand ? (
    <BoardList board={props.board} queue={props.queue} />
  ) : (
    <div className="max-md:hidden">
      <BoardMatrix {...props} />
    </div>
  );
}
