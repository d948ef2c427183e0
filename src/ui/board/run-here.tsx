'use client';

import { useState } from 'react';
import type { Reach } from '@/core';
import type { BoardRow } from '@/services';
import type { QueueRound } from './round-form';

interface RunHereProps {
  readonly row: Pick<BoardRow, 'deviceId' | 'deviceName'>;
  readonly reaches: readonly Reach[];
  readonly queue: QueueRound;
}

/** Shown at a device that stands by: starts a set on it, farthest reach last, without anybody going there. */
export function RunHere({ row, reaches, queue }: RunHereProps) {
  const [complaint, setComplaint] = useState<string | null>(null);
  const start = async (reach: Reach) =>
    setComplaint(
      await queue({ deviceIds: [row.deviceId], reaches: [reach], times: 1, profile: 'standard', together: false }),
    );
  return (
    <span className="mt-0.5 flex flex-wrap items-center gap-x-2 text-xs text-quiet">
      <span className="whitespace-nowrap">
        <span aria-hidden="true" className="mr-1.5 inline-block size-2 rounded-full bg-ink" />
        stands by
      </span>
      {reaches.map((reach) => (
        <button
          key={reach}
          type="button"
          aria-label={`Run ${reach} on ${row.deviceName}`}
          onClick={() => void start(reach)}
          className="text-ink underline decoration-hairline underline-offset-2 hover:decoration-ink"
        >
          {reach}
        </button>
      ))}
      {complaint !== null && (
        <span role="alert" className="font-medium text-starved">
          {complaint}
        </span>
      )}
    </span>
  );
}
