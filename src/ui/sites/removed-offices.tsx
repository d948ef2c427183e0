'use client';

import { useState } from 'react';
import { Button } from '../parts/button';

interface RemovedOfficesProps {
  readonly offices: readonly { readonly id: string; readonly name: string }[];
  readonly putBack: (siteId: string) => Promise<string | null>;
}

/** Offices that were removed within a day, each with its way back. */
export function RemovedOffices({ offices, putBack }: RemovedOfficesProps) {
  const [complaint, setComplaint] = useState<string | null>(null);
  if (offices.length === 0) return null;
  return (
    <section aria-label="Removed offices" className="mb-5 border border-hairline bg-sheet px-4 py-3 text-sm">
      <ul className="space-y-1">
        {offices.map(({ id, name }) => (
          <li key={id} className="flex flex-wrap items-baseline gap-x-3">
            <span className="break-words">{name} was removed, with its runs. It can be put back for a day.</span>
            <Button look="quiet" className="!min-h-7 text-sm" onClick={() => void putBack(id).then(setComplaint)}>
              Put it back
            </Button>
          </li>
        ))}
      </ul>
      {complaint !== null && (
        <p role="alert" className="mt-2 font-medium text-starved">
          {complaint}
        </p>
      )}
    </section>
  );
}
