'use client';

import { useTransition } from 'react';
import { Button } from '../parts/button';
import { Confirm } from '../parts/confirm';
import { PrintButton } from '../parts/print-button';

interface SideActionsProps {
  readonly sharePath: string | null;
  readonly share: () => Promise<void>;
  readonly unshare: () => Promise<void>;
  readonly remove: () => Promise<void>;
}

/** What can be done with a comparison as a whole. */
export function SideActions({ sharePath, share, unshare, remove }: SideActionsProps) {
  const [working, start] = useTransition();
  return (
    <div className="flex flex-wrap items-center gap-2 print:hidden" aria-busy={working}>
      {sharePath === null ? (
        <Confirm
          trigger={<Button className="text-sm">Share</Button>}
          title="Make a link that anybody may open?"
          consequence="Whoever has it reads this comparison: the names of devices and places too. It leads nowhere else, and can be revoked."
          action="Make the link"
          keep="Keep it to us"
          onConfirm={() => start(share)}
        />
      ) : (
        <>
          <a href={sharePath} className="text-sm underline">
            the link to share
          </a>
          <Button look="quiet" className="!px-1 text-sm" onClick={() => start(unshare)}>
            revoke it
          </Button>
        </>
      )}
      <PrintButton />
      <Confirm
        trigger={
          <Button look="quiet" className="!px-1 text-sm">
            Remove
          </Button>
        }
        title="Remove this comparison?"
        consequence="The runs stay in the ledger; what was put together here goes, and so does a link to it."
        action="Remove it"
        onConfirm={() => start(remove)}
      />
    </div>
  );
}
