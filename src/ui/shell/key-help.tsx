'use client';

import { useEffect, useState } from 'react';
import { Dialog, DialogClose } from '../parts/dialog';
import { isTyping, KEYS } from './console-keys';

/** All keys of the console, shown by the key ? and by its button. */
export function KeyHelp() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === '?' && !isTyping(event.target)) setOpen(true);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  return (
    <Dialog
      title="Keys"
      open={open}
      onOpen={setOpen}
      className="w-[min(30rem,92vw)] p-6"
      trigger={
        <button
          type="button"
          aria-label="All keys"
          aria-keyshortcuts="?"
          className="grid size-8 place-items-center rounded-[3px] text-quiet hover:text-ink"
        >
          ?
        </button>
      }
    >
      <dl className="mt-3">
        {KEYS.map(([key, what]) => (
          <div key={key} className="grid grid-cols-[5rem_1fr] gap-3 border-b border-hairline py-1.5">
            <dt className="figure text-[0.85rem]">{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-3 text-sm text-quiet">Letters work while no field has the focus.</p>
      <div className="mt-4 text-right">
        <DialogClose className="underline underline-offset-4">Close</DialogClose>
      </div>
    </Dialog>
  );
}
