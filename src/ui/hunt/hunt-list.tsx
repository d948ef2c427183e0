'use client';

import { useState } from 'react';
import type { HuntLine } from '@/services';
import { Button } from '../parts/button';
import { WallTime } from '../parts/wall-time';
import { Link } from '../parts/link';

interface HuntListProps {
  readonly hunts: readonly HuntLine[];
  readonly devices: readonly { readonly id: string; readonly name: string }[];
  readonly open: (deviceId: string | null) => Promise<string | null>;
}

const STATE_WORDS = { open: 'open', found: 'found', mended: 'mended', 'given-up': 'given up' } as const;

/** Begins a hunt with who suffers, and lists those that there are. */
export function HuntList({ hunts, devices, open }: HuntListProps) {
  const [deviceId, setDeviceId] = useState('');
  const [said, setSaid] = useState<string | null>(null);
  return (
    <>
      <form
        className="mb-6 flex flex-wrap items-end gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          void open(deviceId === '' ? null : deviceId).then(setSaid);
        }}
      >
        <label className="min-w-56 text-sm text-quiet">
          who says that it is slow
          <select className="field text-ink" value={deviceId} onChange={(event) => setDeviceId(event.target.value)}>
            <option value="">nobody in particular</option>
            {devices.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <Button type="submit" look="main">
          Begin a hunt
        </Button>
        {said !== null && (
          <span role="alert" className="text-sm text-starved">
            {said}
          </span>
        )}
      </form>
      {hunts.length === 0 ? (
        <p className="text-quiet">No hunt yet.</p>
      ) : (
        <ul>
          {hunts.map(({ id, title, state, openedAtMs, openedBy }) => (
            <li key={id} className="flex flex-wrap items-baseline gap-x-6 gap-y-0.5 border-t border-hairline py-2">
              <Link
                href={`/hunt/${id}`}
                className="min-w-0 flex-1 basis-[24rem] break-words underline decoration-hairline underline-offset-4"
              >
                {title}
              </Link>
              <span className={state === 'open' ? 'font-medium' : 'text-quiet'}>{STATE_WORDS[state]}</span>
              <span className="text-sm text-quiet">
                {openedBy}, <WallTime atMs={openedAtMs} />
              </span>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
