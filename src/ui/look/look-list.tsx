'use client';

import { lookAskedWords, lookEndWords } from '@/core';
import type { LooksPage } from '@/services';
import { Button } from '../parts/button';
import { RefusedNote } from '../parts/refused-note';
import { useActs } from '../parts/use-acts';
import { WallTime } from '../parts/wall-time';
import { FoundTable } from './found-tables';
import type { KeepLoad } from './keep-load';

type ShownLook = LooksPage['looks'][number];

const titled = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

interface LookItemProps {
  readonly look: ShownLook;
  readonly open: boolean;
  readonly stop: (lookId: string) => Promise<string | null>;
  readonly keep: KeepLoad;
}

function LookItem({ look, open, stop, keep }: LookItemProps) {
  const { working, refused, does } = useActs();
  const { outcome } = look;
  return (
    <li className="border-t border-hairline py-3" aria-busy={outcome === null}>
      <h3 className="break-words font-medium">
        {titled(lookAskedWords(look.asked))}
        <span className="font-normal text-quiet">
          {' '}
          from {look.deviceName}, <WallTime atMs={look.askedAtMs} />, asked by {look.askedBy}
        </span>
      </h3>
      {outcome === null ? (
        <p className="flex items-center gap-4">
          It looks …{' '}
          <Button className="!min-h-8 text-sm" disabled={working} onClick={does(() => stop(look.id))}>
            Stop
          </Button>
          <RefusedNote refused={refused} />
        </p>
      ) : (
        <p className={`max-w-[60rem] break-words ${outcome.ok ? '' : 'text-thin-words'}`}>
          {lookEndWords(outcome, look.inside)}
        </p>
      )}
      {outcome?.ok === true && (
        <details open={open} className="mt-1">
          <summary className="text-sm">All that was found</summary>
          <div className="mt-1">
            <FoundTable found={outcome.found} deviceId={look.deviceId} keep={keep} />
          </div>
        </details>
      )}
    </li>
  );
}

/** What was looked at, the newest first and open. */
export function LookList({ looks, stop, keep }: Pick<LooksPage, 'looks'> & Pick<LookItemProps, 'stop' | 'keep'>) {
  return (
    <ul>
      {looks.map((look, place) => (
        <LookItem key={look.id} look={look} open={place === 0} stop={stop} keep={keep} />
      ))}
    </ul>
  );
}
