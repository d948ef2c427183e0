'use client';

import { useTransition } from 'react';
import { Button } from '../parts/button';
import { Confirm } from '../parts/confirm';
import { MadeFile } from '../parts/made-file';

interface CaseActionsProps {
  readonly id: string;
  readonly closed: boolean;
  readonly close: (closed: boolean) => Promise<void>;
  readonly remove: () => Promise<void>;
}

/** What can be done with a case as a whole. */
export function CaseActions({ id, closed, close, remove }: CaseActionsProps) {
  const [working, start] = useTransition();
  return (
    <div className="flex flex-wrap items-center gap-2 print:hidden" aria-busy={working}>
      <MadeFile href={`/case/${id}/record.pdf`} words="The record as PDF" />
      <a href={`/case/${id}/record.json`} className="text-sm underline">
        as data
      </a>
      <Button className="text-sm" onClick={() => start(() => close(!closed))}>
        {closed ? 'Open again' : 'Close'}
      </Button>
      <Confirm
        trigger={
          <Button look="quiet" className="!px-1 text-sm">
            Remove
          </Button>
        }
        title="Remove this case?"
        consequence="The runs stay in the ledger; the contract’s figures, the rule and the notes of this case go for good."
        action="Remove it"
        onConfirm={() => start(remove)}
      />
    </div>
  );
}
