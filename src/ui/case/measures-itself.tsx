'use client';

import { useState, useTransition } from 'react';

interface MeasuresItselfProps {
  readonly devices: readonly { readonly id: string; readonly name: string; readonly standsBy: boolean }[];
  readonly deviceId: string | null;
  readonly everyMinutes: number;
  /** Answers with what stands in the way, or null. */
  readonly choose: (deviceId: string | null) => Promise<string | null>;
}

/** Which device measures what the case misses, by itself. */
export function MeasuresItself({ devices, deviceId, everyMinutes, choose }: MeasuresItselfProps) {
  const [refused, setRefused] = useState<string | null>(null);
  const [working, start] = useTransition();
  const chosen = devices.find(({ id }) => id === deviceId);
  return (
    <div className="mt-4 print:hidden" aria-busy={working}>
      <label className="flex flex-wrap items-baseline gap-x-2">
        <span>What is missing is measured by</span>
        <select
          className="field !min-h-8 !w-auto !py-0"
          value={deviceId ?? ''}
          disabled={working}
          onChange={(event) => {
            const next = event.target.value === '' ? null : event.target.value;
            start(async () => setRefused(await choose(next)));
          }}
        >
          <option value="">whoever runs it by hand</option>
          {devices.map(({ id, name, standsBy }) => (
            <option key={id} value={id}>
              {name}
              {standsBy ? '' : ' (does not stand by now)'}
            </option>
          ))}
        </select>
      </label>
      {chosen !== undefined && (
        <p className="mt-1 text-sm text-quiet">
          One run about every {everyMinutes} minutes between 7:00 and 22:00 while it stands by, until the day, and the
          case, has enough.
          {chosen.standsBy ? '' : ' It does not stand by now: open its page, or start its agent.'}
        </p>
      )}
      {refused !== null && (
        <p role="alert" className="mt-1 text-sm text-starved">
          {refused}
        </p>
      )}
    </div>
  );
}
