'use client';

import { useId, useState } from 'react';
import { copyTime, durationWords } from '@/core';
import type { RunPage } from '@/services';

const GB = 1e9;

/** How long a backup or a copy takes over this path, for a size that one types. */
export function RunCopyTime({ rates }: { readonly rates: RunPage['ratesOfMonth'] }) {
  const [typed, setTyped] = useState('100');
  const id = useId();
  const gigabytes = Number(typed.replace(',', '.'));
  const valid = typed.trim() !== '' && Number.isFinite(gigabytes) && gigabytes > 0 && gigabytes <= 1e6;
  const rows = [
    ['to fetch', rates.downBps],
    ['to send', rates.upBps],
  ] as const;
  return (
    <section aria-label="Copy time" className="print:hidden">
      <h2 className="mb-2 font-semibold">How long a copy takes</h2>
      <label htmlFor={id} className="flex items-baseline gap-2">
        <input
          id={id}
          value={typed}
          inputMode="decimal"
          aria-invalid={!valid}
          onChange={(event) => setTyped(event.target.value)}
          className="field figure !min-h-8 !w-24 !py-0 text-right"
        />
        <span className="text-quiet">GB</span>
      </label>
      {valid ? (
        <dl className="mt-2 text-[0.9rem]">
          {rows.map(([what, known]) => {
            const time = copyTime(gigabytes * GB, known);
            return (
              <div key={what} className="grid grid-cols-[5rem_1fr] border-b border-hairline py-1">
                <dt className="text-quiet">{what}</dt>
                <dd>
                  {time === null ? (
                    'not known: no rate was measured'
                  ) : (
                    <>
                      {durationWords(time.usualSeconds)}
                      {known.length > 1 && (
                        <span className="text-quiet">, {durationWords(time.badSeconds)} at a bad hour</span>
                      )}
                    </>
                  )}
                </dd>
              </div>
            );
          })}
        </dl>
      ) : (
        <p role="alert" className="mt-2 text-sm font-medium text-starved">
          Write a size in gigabytes, such as 250.
        </p>
      )}
      <p className="mt-1 text-sm text-quiet">
        By {rates.downBps.length === 1 ? 'this run' : `${rates.downBps.length} runs of the last thirty days`}, 3 % for
        headers added. 1 GB is 1000 MB.
      </p>
    </section>
  );
}
