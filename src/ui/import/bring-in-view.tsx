'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { countWords } from '@/core';
import type { BroughtIn } from '@/wire';
import { ledgerHref, WHOLE_LEDGER } from '../ledger/ledger-href';
import { Button } from '../parts/button';
import { BroughtInList } from './brought-in-list';
import { ColumnTable } from './column-table';
import { FileChoice } from './file-choice';
import { GoingLine } from './going-line';
import { LookResult } from './look-result';
import { ReadingChoices } from './reading-choices';
import { useImport } from './use-import';
import { Link } from '../parts/link';

const BROUGHT_IN = ledgerHref({ ...WHOLE_LEDGER, query: 'state=imported' });

interface BringInViewProps {
  readonly siteId: string;
  readonly files: readonly BroughtIn[];
  /** Of the office; null: this machine's. */
  readonly timeZone: string | null;
  readonly nowMs: number;
  readonly undo: (importId: string) => Promise<string | null>;
}

/** A word for the tag, made of the file's name. */
const tagOf = (fileName: string) =>
  fileName
    .replace(/\.[^.]*$/, '')
    .replace(/[",\s]+/g, '-')
    .slice(0, 40);

/** Brings runs in from a file: chosen, looked at, read in another way where it was meant so, then taken in. */
export function BringInView({ siteId, files, timeZone, nowMs, undo }: BringInViewProps) {
  const router = useRouter();
  const way = useImport(siteId, () => router.refresh());
  const [without, setWithout] = useState(false);
  const [tag, setTag] = useState<string | null>(null);
  const { file, reading, look, going, refused, taken } = way;
  const runs = look?.runs ?? 0;
  const waits = going !== null || runs === 0 || ((look?.refused ?? 0) > 0 && !without);
  return (
    <>
      <p className="text-sm">
        <Link href="/ledger" className="underline decoration-hairline underline-offset-4">
          Ledger
        </Link>
      </p>
      <h1 className="text-xl font-semibold">Bring runs in</h1>
      <p className="mb-3 mt-1 max-w-[44rem] text-quiet">
        From a table that another program wrote, or that came out of this one. What is brought in is marked, can be
        compared and looked at over time, and judges nothing: there are no samples that would prove it.
      </p>
      <FileChoice
        onFile={(chosen) => {
          setTag(null);
          setWithout(false);
          void way.send(chosen);
        }}
        chosen={file?.fileName ?? null}
      />
      {going !== null && <GoingLine going={going} stop={() => void way.stop()} />}
      {refused !== null && (
        <p role="alert" className="mt-2 max-w-[44rem] font-medium text-starved">
          {refused}
        </p>
      )}
      {taken !== null && (
        <p role="status" className="mt-3">
          {countWords(taken.runs, 'run')} brought in from {taken.fileName}.{' '}
          <Link href={BROUGHT_IN} className="underline">
            Show them in the ledger
          </Link>
        </p>
      )}
      {file !== null && reading !== null && (
        <>
          <section className="mt-4" aria-label="How the file is read">
            <ReadingChoices key={file.id} reading={reading} onReading={way.read} />
            <div className="mt-3 max-w-[60rem] overflow-x-auto">
              <ColumnTable file={file} reading={reading} onReading={way.read} />
            </div>
          </section>
          <section
            className="mt-4 max-w-[64rem]"
            aria-label="What it would bring"
            aria-busy={going?.what === 'looking'}
          >
            {look !== null && <LookResult look={look} timeZone={timeZone} nowMs={nowMs} />}
          </section>
          <div className="sticky bottom-0 z-[4] -mx-2 mt-4 flex flex-wrap items-center gap-x-4 gap-y-1 border border-ink bg-sheet px-4 py-2 text-sm shadow-[0_-3px_0_var(--hairline)]">
            <Button look="main" disabled={waits} onClick={() => void way.take(tag ?? tagOf(file.fileName), without)}>
              {runs === 0 ? 'Nothing to bring in' : `Bring ${countWords(runs, 'run')} in`}
            </Button>
            {(look?.refused ?? 0) > 0 && (
              <label className="flex items-center gap-2">
                <input type="checkbox" checked={without} onChange={({ target }) => setWithout(target.checked)} />
                without the {look!.refused === 1 ? 'line' : `${look!.refused} lines`} that cannot be read
              </label>
            )}
            <label className="flex items-center gap-2">
              <span className="text-quiet">with the tag</span>
              <input
                className="field !min-h-8 !w-44 !py-0"
                value={tag ?? tagOf(file.fileName)}
                maxLength={40}
                onChange={({ target }) => setTag(target.value.replace(/[",\s]+/g, '-'))}
              />
            </label>
            <Button look="quiet" className="!min-h-8 !px-1 text-sm" onClick={() => void way.stop()}>
              Close the file
            </Button>
          </div>
        </>
      )}
      <BroughtInList files={files} timeZone={timeZone} nowMs={nowMs} undo={undo} />
    </>
  );
}
