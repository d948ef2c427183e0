'use client';

import { useState } from 'react';
import type { PeerReach } from '@/core';
import type { BoardRow } from '@/services';
import type { QueueRound } from './round-form';

interface RunHereProps {
  readonly row: Pick<BoardRow, 'deviceId' | 'deviceName'>;
  readonly reaches: readonly PeerReach[];
  readonly queue: QueueRound;
}

/** A device that waits for the console's word. */
export function StandsBy() {
  return (
    <span title="stands by: it can be asked to measure from here" className="shrink-0">
      <span aria-hidden="true" className="inline-block size-2 rounded-full bg-ink" />
      <span className="sr-only">stands by</span>
    </span>
  );
}

/** Shown at a device that stands by: starts a set on it, farthest reach last, without anybody going there. */
export function RunHere({ row, reaches, queue }: RunHereProps) {
  const [complaint, setComplaint] = useState<string | null>(null);
  const start = async (reach: PeerReach) =>
    setComplaint(
      await queue({ deviceIds: [row.deviceId], reaches: [reach], times: 1, profile: 'standard', together: false }),
    );
  return (
    <span className="run-here flex shrink-0 items-center gap-x-2">
      run
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
