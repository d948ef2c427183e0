'use client';

import { useState, useTransition } from 'react';
import { countWords } from '@/core';
import type { BroughtIn } from '@/wire';
import { ledgerHref, WHOLE_LEDGER } from '../ledger/ledger-href';
import { Button } from '../parts/button';
import { Confirm } from '../parts/confirm';
import { wallTimeWords } from '../parts/wall-time';
import { Link } from '../parts/link';

const BROUGHT_IN = ledgerHref({ ...WHOLE_LEDGER, query: 'state=imported' });

interface BroughtInListProps {
  readonly files: readonly BroughtIn[];
  readonly timeZone: string | null;
  readonly nowMs: number;
  readonly undo: (importId: string) => Promise<string | null>;
}

/** Files that runs came from, and the way to take them out again. */
export function BroughtInList({ files, timeZone, nowMs, undo }: BroughtInListProps) {
  const [working, start] = useTransition();
  const [refused, setRefused] = useState<string | null>(null);
  if (files.length === 0) return null;
  return (
    <section className="mt-8" aria-busy={working}>
      <h2 className="font-semibold">Brought in so far</h2>
      {refused !== null && (
        <p role="alert" className="text-sm font-medium text-starved">
          {refused}
        </p>
      )}
      <ul className="max-w-[60rem] text-sm">
        {files.map(({ id, fileName, madeAt, byName, runs, state }) => (
          <li key={id} className="flex flex-wrap items-baseline gap-x-4 border-t border-hairline py-1.5">
            <span className="min-w-0 max-w-80 truncate font-semibold" title={fileName}>
              {fileName}
            </span>
            <span className={state === 'undone' ? 'text-quiet line-through' : ''}>{countWords(runs, 'run')}</span>
            <span className="text-quiet">
              {wallTimeWords(Date.parse(madeAt), { timeZone, nowMs })}, {byName}
            </span>
            {state === 'undone' ? (
              <span className="text-quiet">taken out again</span>
            ) : (
              <Confirm
                trigger={
                  <Button look="quiet" className="!min-h-7 !px-1 text-sm">
                    Take them out again
                  </Button>
                }
                title={`Take ${countWords(runs, 'run')} out again?`}
                consequence={`All that came from ${fileName} goes, with what was written beside it. The file itself is yours: it can be brought in once more.`}
                action="Take them out"
                onConfirm={() => start(async () => setRefused(await undo(id)))}
              />
            )}
          </li>
        ))}
      </ul>
      <p className="mt-1 text-sm text-quiet">
        In the ledger they are found by{' '}
        <Link href={BROUGHT_IN} className="underline">
          state=imported
        </Link>
        .
      </p>
    </section>
  );
}
