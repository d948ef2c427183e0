'use client';

import { useState } from 'react';
import { LEDGER_FIELD_NAMES, LEDGER_FIELDS } from '@/core';
import { Button } from '../parts/button';
import { Dialog } from '../parts/dialog';

const EXAMPLES: readonly (readonly [string, string])[] = [
  ['press', 'something is called so, or somebody wrote it beside the run'],
  ['"scan room"', 'a name with a space stands in quotes'],
  ['verdict=starved,thin', 'one or the other'],
  ['down<100 reach=internet', 'both'],
  ['added=75..200', 'between two figures'],
  ['from=12.11. until=yesterday', 'days, in the time zone of the office'],
  ['hour=19..22 last=4w', 'evenings of the last four weeks'],
  ['-link=wired', 'not so'],
];

/** What may be typed into the ledger's field. */
export function LedgerHelp() {
  const [open, setOpen] = useState(false);
  return (
    <Dialog
      title="What may be typed"
      open={open}
      onOpen={setOpen}
      className="w-[min(44rem,94vw)] p-5"
      trigger={
        <Button look="quiet" className="!min-h-9 !px-2" aria-label="What may be typed">
          ?
        </Button>
      }
    >
      <p className="mt-1 text-sm text-quiet">All that is typed must hold of a run. It is completed while one types.</p>
      <dl className="mt-3 grid grid-cols-[max-content_1fr] gap-x-6 gap-y-1 text-sm">
        {EXAMPLES.map(([typed, means]) => (
          <div key={typed} className="contents">
            <dt className="figure text-[0.8rem]">{typed}</dt>
            <dd>{means}</dd>
          </div>
        ))}
      </dl>
      <dl className="mt-4 grid grid-cols-[max-content_1fr] gap-x-6 gap-y-0.5 border-t border-hairline pt-3 text-sm">
        {LEDGER_FIELD_NAMES.map((field) => {
          const kind = LEDGER_FIELDS[field];
          return (
            <div key={field} className="contents">
              <dt className="figure text-[0.8rem]">{field}</dt>
              <dd>
                {kind.about}
                {kind.kind === 'figure' && <span className="text-quiet">, {kind.unit}</span>}
                {kind.kind === 'choice' && (
                  <span className="text-quiet">: {kind.choices.map(([typed]) => typed).join(', ')}</span>
                )}
              </dd>
            </div>
          );
        })}
      </dl>
    </Dialog>
  );
}
