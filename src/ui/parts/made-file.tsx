'use client';

import { useEffect, useRef, useState } from 'react';
import { Button } from './button';

interface MadeFileProps {
  readonly href: string;
  readonly words: string;
}

/** Hands a file over to the browser, under the name that came with it. */
async function save(answer: Response): Promise<void> {
  const name = /filename="([^"]+)"/.exec(answer.headers.get('Content-Disposition') ?? '')?.[1] ?? 'file';
  const url = URL.createObjectURL(await answer.blob());
  const link = Object.assign(document.createElement('a'), { href: url, download: name });
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}

/** A file that takes a moment to be made: it says for how long it has been at it, and can be stopped. */
export function MadeFile({ href, words }: MadeFileProps) {
  const [state, setState] = useState<{ readonly seconds: number } | { readonly failure: string } | null>(null);
  const making = useRef<AbortController | null>(null);
  useEffect(() => () => making.current?.abort(), []);

  const make = async () => {
    const stop = new AbortController();
    making.current = stop;
    setState({ seconds: 0 });
    const startedMs = performance.now();
    const ticking = setInterval(() => setState({ seconds: Math.round((performance.now() - startedMs) / 1000) }), 500);
    try {
      const answer = await fetch(href, { signal: stop.signal });
      if (answer.ok) await save(answer);
      const problem = answer.ok ? null : ((await answer.json().catch(() => null)) as { detail?: string } | null);
      clearInterval(ticking);
      setState(answer.ok ? null : { failure: problem?.detail ?? 'The console made no file. Try once more.' });
    } catch {
      clearInterval(ticking);
      setState(stop.signal.aborted ? null : { failure: 'The console is not answering. Try once more.' });
    }
  };

  const busy = state !== null && 'seconds' in state;
  return (
    <span className="inline-flex flex-wrap items-center gap-2">
      <a
        href={href}
        aria-disabled={busy}
        onClick={(event) => {
          // A second window, or a browser without scripts, gets it as any other file.
          if (event.ctrlKey || event.metaKey || event.shiftKey) return;
          event.preventDefault();
          if (!busy) void make();
        }}
        className={`inline-flex min-h-9 items-center rounded-[3px] border-[1.5px] px-3 text-paper ${busy ? 'border-quiet bg-quiet' : 'border-ink bg-ink hover:border-down hover:bg-down'}`}
      >
        {words}
      </a>
      <span role="status" className="text-sm text-quiet">
        {busy && (state.seconds === 0 ? 'being made …' : `being made, ${state.seconds} s …`)}
      </span>
      {busy && (
        <Button look="quiet" className="!px-1 text-sm" onClick={() => making.current?.abort()}>
          Stop
        </Button>
      )}
      {state !== null && 'failure' in state && (
        <span role="alert" className="text-sm font-medium text-starved">
          {state.failure}
        </span>
      )}
    </span>
  );
}
