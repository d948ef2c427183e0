'use client';

import { useState, useTransition } from 'react';
import { Button } from '../parts/button';
import { Confirm } from '../parts/confirm';

/** Lets a machine be an agent no more. */
export function RetireAgent({
  name,
  retire,
}: {
  readonly name: string;
  readonly retire: () => Promise<string | null>;
}) {
  const [working, start] = useTransition();
  const [refused, setRefused] = useState<string | null>(null);
  return (
    <span aria-busy={working}>
      <Confirm
        trigger={
          <Button look="quiet" className="!min-h-0 !px-1 text-sm" disabled={working}>
            Retire
          </Button>
        }
        title={`Retire ${name}?`}
        consequence="It is sent away and measures no more, until it joins again. Its device and its runs stay."
        action="Retire it"
        onConfirm={() => start(async () => setRefused(await retire()))}
      />
      {refused !== null && (
        <span role="alert" className="block text-sm font-medium text-starved">
          {refused}
        </span>
      )}
    </span>
  );
}
