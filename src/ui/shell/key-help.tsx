'use client';

import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
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
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <button
          type="button"
          aria-label="All keys"
          aria-keyshortcuts="?"
          className="grid size-8 place-items-center rounded-[3px] text-quiet hover:text-ink"
        >
          ?
        </button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[14vh] z-40 w-[min(30rem,92vw)] -translate-x-1/2 border border-ink bg-sheet p-6 text-ink"
        >
          <Dialog.Title className="text-lg font-semibold">Keys</Dialog.Title>
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
            <Dialog.Close className="underline underline-offset-4">Close</Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
