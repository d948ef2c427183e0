'use client';

import { useEffect, useState } from 'react';
import { GLOSSARY } from '@/core';
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
      title="Keys and words"
      open={open}
      onOpen={setOpen}
      className="max-h-[86vh] w-[min(58rem,94vw)] overflow-y-auto p-6"
      trigger={
        <button
          type="button"
          aria-label="All keys and words"
          aria-keyshortcuts="?"
          className="grid size-8 place-items-center rounded-[3px] text-quiet hover:text-ink"
        >
          ?
        </button>
      }
    >
      <div className="mt-3 grid gap-x-10 gap-y-6 md:grid-cols-[17rem_1fr]">
        <div>
          <dl>
            {KEYS.map(([key, what]) => (
              <div key={key} className="grid grid-cols-[5rem_1fr] gap-3 border-b border-hairline py-1.5">
                <dt className="figure text-[0.85rem]">{key}</dt>
                <dd>{what}</dd>
              </div>
            ))}
          </dl>
          <p className="mt-3 text-sm text-quiet">Letters work while no field has the focus.</p>
        </div>
        <dl aria-label="Words" className="text-[0.875rem]">
          {Object.entries(GLOSSARY).map(([word, sentence]) => (
            <div key={word} className="grid grid-cols-[8.5rem_1fr] gap-3 border-b border-hairline py-1">
              <dt className="font-medium">{word}</dt>
              <dd className="text-quiet">{sentence}</dd>
            </div>
          ))}
        </dl>
      </div>
      <div className="mt-4 text-right">
        <DialogClose className="underline underline-offset-4">Close</DialogClose>
      </div>
    </Dialog>
  );
}
