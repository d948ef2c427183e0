'use client';

import { useState } from 'react';
import type { PeerReach } from '@/core';
import type { CellMark } from './board-keys';
import type { WantedPlace } from './join-slip';
import type { QueueRound } from './round-form';

interface EmptyCellProps {
  readonly mark: CellMark;
  /** The device and the column. */
  readonly place: string;
}

/** A place where nothing was measured yet, at a device that has to be opened first: press it to see how. */
export function EmptyCell({ mark, place, onWanted }: EmptyCellProps & { onWanted: (wanted: WantedPlace) => void }) {
  return (
    <button
      type="button"
      {...mark}
      aria-label={`Nothing measured yet: ${place}. Show the code.`}
      aria-haspopup="dialog"
      onClick={(event) => onWanted({ pressed: event.currentTarget, place })}
      className="empty-cell"
    >
      +
    </button>
  );
}

interface EmptyRunCellProps extends EmptyCellProps {
  readonly deviceId: string;
  readonly reach: PeerReach;
  readonly queue: QueueRound;
}

/** A place where nothing was measured yet, at a device that stands by over this link: press it to measure. */
export function EmptyRunCell({ mark, place, deviceId, reach, queue }: EmptyRunCellProps) {
  const [said, setSaid] = useState<string | null>(null);
  const run = async () => {
    const once = { times: 1, profile: 'standard', together: false } as const;
    setSaid((await queue({ deviceIds: [deviceId], reaches: [reach], ...once })) ?? 'asked');
  };
  return (
    <button
      type="button"
      {...mark}
      aria-label={`Nothing measured yet: ${place}. Measure now.`}
      onClick={() => void run()}
      className="empty-cell"
    >
      {said === null ? '▸' : <span className="px-2 text-xs text-quiet">{said}</span>}
    </button>
  );
}
