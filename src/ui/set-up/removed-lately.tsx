'use client';

import { useState } from 'react';
import type { SetUp } from '@/services';
import { Button } from '../parts/button';

interface RemovedLatelyProps {
  readonly removed: SetUp['removed'];
  /** Puts it back; answers with what stands in the way, or null. */
  readonly undo: (removalId: string) => Promise<string | null>;
}

/** Runs are removed many at a time, under their number. */
const isMany = (kind: SetUp['removed'][number]['kind'], name: string) => kind === 'runs' && !name.startsWith('1 ');

/** What was removed in the last day, each with the way back. */
export function RemovedLately({ removed, undo }: RemovedLatelyProps) {
  const [complaint, setComplaint] = useState<string | null>(null);
  if (removed.length === 0) return null;
  return (
    <section
      aria-label="Removed lately"
      className="sticky top-28 z-[5] mb-5 lg:top-12 max-h-32 overflow-y-auto border-l-[3px] border-quiet bg-sheet px-4 py-2 text-sm"
    >
      <ul>
        {removed.map(({ id, kind, name, into }) => (
          <li key={id} className="flex flex-wrap items-baseline gap-x-3">
            <span className="text-quiet">
              {kind !== 'runs' && `The ${kind} `}
              <span className="break-words text-ink">{name}</span>{' '}
              {into === null ? `${isMany(kind, name) ? 'were' : 'was'} removed.` : `was made one with ${into}.`}
            </span>
            <Button
              look="quiet"
              className="!min-h-7 text-sm"
              aria-label={into === null ? `Put ${name} back` : `Part ${name} again`}
              onClick={() => void undo(id).then(setComplaint)}
            >
              {into !== null ? 'Part them again' : isMany(kind, name) ? 'Put them back' : 'Put it back'}
            </Button>
          </li>
        ))}
      </ul>
      {complaint !== null && (
        <p role="alert" className="font-medium text-starved">
          {complaint}
        </p>
      )}
    </section>
  );
}
