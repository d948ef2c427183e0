'use client';

import { useState } from 'react';
import { Button } from '../parts/button';
import { RefusedNote } from '../parts/refused-note';
import { useActs } from '../parts/use-acts';

/** A port, or the line, whose load is to be watched from now on. */
export interface LoadToKeep {
  /** The agent that reads it. */
  readonly deviceId: string;
  /** As a lane names it. */
  readonly target: string;
  readonly name: string;
  readonly role: 'line' | 'inside';
}
export type KeepLoad = (load: LoadToKeep) => Promise<string | null>;

/** Makes lanes of what was read once. */
export function KeepLoadButton({ load, keep }: { readonly load: LoadToKeep; readonly keep: KeepLoad }) {
  const { working, refused, does } = useActs();
  const [kept, setKept] = useState(false);
  if (kept)
    return (
      <span className="text-sm">
        In the <a href="/watch">lanes</a> from now on.
      </span>
    );
  const ask = async () => {
    const said = await keep(load);
    setKept(said === null);
    return said;
  };
  return (
    <span className="inline-flex flex-wrap items-center gap-2">
      <Button
        look="quiet"
        className="!min-h-7 !px-1 text-sm"
        disabled={working}
        aria-label={`Keep watching ${load.name}`}
        onClick={does(ask)}
      >
        keep watching
      </Button>
      <RefusedNote refused={refused} />
    </span>
  );
}
