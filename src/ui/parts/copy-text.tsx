'use client';

import { useState } from 'react';
import { Button } from './button';

const SHOW_MS = 2500;

/** Puts a text where it can be pasted from; where the browser does not allow that, it says so, and it is marked by hand. */
export function CopyText({ text }: { readonly text: string }) {
  const [said, setSaid] = useState<string | null>(null);
  const copy = async () => {
    // A browser lets only a page that came by https, or from its own machine, write to the clipboard.
    const clipboard = (navigator as { clipboard?: Clipboard }).clipboard;
    const copied = await clipboard?.writeText(text).then(
      () => true,
      () => false,
    );
    setSaid(copied === true ? 'copied' : 'mark it and copy it: this browser lets no page do so over http');
    setTimeout(() => setSaid(null), SHOW_MS);
  };
  return (
    <span className="flex items-center gap-2 text-sm">
      <span role="status" className="text-quiet">
        {said}
      </span>
      <Button look="quiet" className="!min-h-8 !px-1 text-sm" onClick={() => void copy()}>
        Copy
      </Button>
    </span>
  );
}
