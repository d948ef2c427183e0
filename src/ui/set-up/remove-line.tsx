'use client';

import { useState } from 'react';
import { Button } from '../parts/button';
import { Confirm } from '../parts/confirm';

interface RemoveLineProps {
  readonly siteId: string;
  readonly line: { readonly id: string; readonly name: string };
  /** Answers with what stands in the way, or null. */
  readonly remove: (siteId: string, lineId: string) => Promise<string | null>;
}

export function RemoveLine({ siteId, line, remove }: RemoveLineProps) {
  const [complaint, setComplaint] = useState<string | null>(null);
  return (
    <>
      <Confirm
        trigger={<Button look="quiet">Remove</Button>}
        title={`Remove ${line.name}?`}
        consequence="Its plans go with it. Runs that crossed it keep its name and the plan of their day. It can be put back for a day."
        action="Remove it"
        onConfirm={() => void remove(siteId, line.id).then(setComplaint)}
      />
      {complaint !== null && (
        <span role="alert" className="text-sm font-medium text-starved">
          {complaint}
        </span>
      )}
    </>
  );
}
