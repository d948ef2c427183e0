'use client';

import { useState } from 'react';
import type { Reach } from '@/core';
import type { CellMark } from './board-keys';
import { JoinSlip, type JoinFacts } from './join-slip';
import type { QueueRound } from './round-form';

interface EmptyCellProps {
  readonly join: JoinFacts;
  readonly mark: CellMark;
  readonly what: string;
  readonly deviceId: string;
  readonly reach: Reach;
  /** Starts a run where the device stands by over this link; null where it has to be opened there first. */
  readonly runs: QueueRound | null;
}

const LOOK =
  'h-full min-h-14 w-full text-lg text-hairline hover:bg-sheet hover:text-ink focus-visible:bg-sheet focus-visible:text-ink';

/** A place where nothing was measured yet: press it to measure, or to see the code. */
export function EmptyCell({ join, mark, what, deviceId, reach, runs }: EmptyCellProps) {
  const [said, setSaid] = useState<string | null>(null);
  if (runs !== null) {
    const run = async () =>
      setSaid(
        (await runs({
          deviceIds: [deviceId],
          reaches: [reach],
          times: 1,
          profile: 'standard',
          together: false,
        })) ?? 'asked',
      );
    return (
      <button
        type="button"
        {...mark}
        aria-label={`Nothing measured yet: ${what}. Measure now.`}
        onClick={() => void run()}
        className={LOOK}
      >
        {said === null ? '▸' : <span className="px-2 text-xs text-quiet">{said}</span>}
      </button>
    );
  }
  return (
    <JoinSlip
      join={join}
      wanted={`Nothing measured yet: ${what}. Open this there, and run.`}
      trigger={
        <button type="button" {...mark} aria-label={`Nothing measured yet: ${what}. Show the code.`} className={LOOK}>
          +
        </button>
      }
    />
  );
}
