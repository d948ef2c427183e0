'use client';

import { useState } from 'react';
import { Button } from '../parts/button';
import { PrintButton } from '../parts/print-button';

interface RunSharingProps {
  readonly path: string | null;
  /** An address of this console that other machines reach, for whoever looks at it on the machine itself. */
  readonly reachableOrigin: string;
  readonly share: () => Promise<void>;
  readonly stop: () => Promise<void>;
}

/** A link by which somebody else may read this run, and the way to end it; and the run on one sheet of paper. */
export function RunSharing({ path, reachableOrigin, share, stop }: RunSharingProps) {
  const [copied, setCopied] = useState<'not yet' | 'yes' | 'cannot'>('not yet');
  const copy = async () => {
    // A browser lets only a page that came by https, or from its own machine, write to the clipboard.
    const clipboard = (navigator as { clipboard?: Clipboard }).clipboard;
    try {
      // "localhost" is another machine for everybody else.
      const { hostname, origin } = window.location;
      const ownName = hostname === 'localhost' || hostname.startsWith('127.') || hostname === '[::1]';
      await clipboard!.writeText(`${ownName ? reachableOrigin : origin}${path}`);
      setCopied('yes');
    } catch {
      setCopied('cannot');
    }
  };
  return (
    <section aria-label="Show it to somebody" className="print:hidden">
      <h2 className="mb-2 font-semibold">Show it to somebody</h2>
      {path === null ? (
        <form action={share}>
          <Button type="submit">Make a link to this run</Button>
        </form>
      ) : (
        <>
          <p className="text-sm text-quiet">
            Whoever has this link can read this run with the figures of its set, and nothing else:
          </p>
          <p className="figure mt-1 break-all text-[0.75rem] select-all">
            {reachableOrigin}
            {path}
          </p>
          <div className="mt-2 flex flex-wrap gap-3">
            <Button onClick={() => void copy()}>{copied === 'yes' ? 'Copied' : 'Copy the link'}</Button>
            <form action={stop}>
              <Button type="submit" look="quiet">
                Revoke it
              </Button>
            </form>
          </div>
          {copied === 'cannot' && (
            <p role="status" className="mt-2 text-sm text-quiet">
              This page came by http, so the browser does not let it copy. Select the link and copy it, or open the
              console by https.
            </p>
          )}
        </>
      )}
      <p className="mt-3">
        <PrintButton words="Print on one page" />
      </p>
    </section>
  );
}
