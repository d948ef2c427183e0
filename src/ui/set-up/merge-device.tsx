'use client';

import { useState } from 'react';
import type { SetUpDevice } from '@/services';
import { Button } from '../parts/button';
import { Confirm } from '../parts/confirm';

interface MergeDeviceProps {
  readonly device: SetUpDevice;
  readonly others: readonly SetUpDevice[];
  readonly merge: (fromId: string, intoId: string) => Promise<void>;
}

/** For two entries that turn out to be one device. */
export function MergeDevice({ device, others, merge }: MergeDeviceProps) {
  const [intoId, setIntoId] = useState('');
  const into = others.find((other) => other.id === intoId);
  return (
    <span className="flex items-baseline gap-2 text-sm text-quiet">
      <label>
        It is the same as{' '}
        <select
          value={intoId}
          onChange={(event) => setIntoId(event.target.value)}
          className="field !min-h-8 !w-auto max-w-[12rem] !py-0"
        >
          <option value="">…</option>
          {others.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      {into !== undefined && (
        <Confirm
          trigger={<Button look="quiet">Make them one</Button>}
          title={`Is ${device.name} the same as ${into.name}?`}
          consequence={`All its runs become runs of ${into.name}, and its browser is known as that one. It can be undone for a day.`}
          action="Make them one"
          onConfirm={() => void merge(device.id, into.id)}
        />
      )}
    </span>
  );
}
