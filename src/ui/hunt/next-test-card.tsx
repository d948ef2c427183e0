'use client';

import { useState } from 'react';
import { linkKindWords, SWAP_WORDS } from '@/core';
import type { ShownTest } from '@/services';
import { Button } from '../parts/button';

interface NextTestCardProps {
  readonly test: ShownTest;
  readonly first: boolean;
  readonly run: (test: ShownTest) => Promise<string | null>;
}

function askWords({ kind, deviceName, linkKind, reach, swap }: ShownTest): string {
  const way = `${linkKindWords(linkKind)} · ${reach}`;
  return kind === 'run' || swap === null
    ? `Measure ${deviceName}, ${way}`
    : `${deviceName}: try ${SWAP_WORDS[swap]}, then measure ${reach}`;
}

const listedOr = (words: readonly string[]) =>
  words.length <= 1
    ? (words[0] ?? 'none of what is suspected now')
    : `${words.slice(0, -1).join(', ')} or ${words.at(-1)!}`;

/** One test: what to do, what it costs, and what each outcome would mean. */
export function NextTestCard({ test, first, run }: NextTestCardProps) {
  const [said, setSaid] = useState<string | null>(null);
  const start = async () => setSaid((await run(test)) ?? 'Asked: the result comes into the story by itself.');
  return (
    <li className={`border-l-[3px] py-2 pl-4 ${first ? 'border-ink' : 'border-hairline'}`}>
      <div className="flex flex-wrap items-baseline justify-between gap-x-4 gap-y-1">
        <h3 className="min-w-0 break-words font-semibold">{askWords(test)}</h3>
        <span className="text-sm text-quiet">
          about {test.minutes} {test.minutes === 1 ? 'minute' : 'minutes'}
          {test.byClick ? ', nobody has to go' : ', somebody goes there'}
        </span>
      </div>
      <p className="mt-0.5 text-sm text-quiet">
        If it is slow as well: <span className="text-ink">{listedOr(test.ifSlow)}</span>. If it is fast:{' '}
        <span className="text-ink">{listedOr(test.ifFast)}</span>.
      </p>
      {test.byClick && (
        <div className="mt-2 flex flex-wrap items-center gap-3 print:hidden">
          <Button look={first ? 'main' : 'plain'} onClick={() => void start()}>
            Measure now
          </Button>
          {said !== null && (
            <span role="status" className="text-sm text-quiet">
              {said}
            </span>
          )}
        </div>
      )}
      {!test.byClick && test.kind === 'run' && (
        <p className="mt-1 text-sm text-quiet">Open the office’s address on it; it then measures by one press.</p>
      )}
      {test.kind === 'swap' && (
        <p className="mt-1 text-sm text-quiet">Write the swap down below when it is done, then measure.</p>
      )}
    </li>
  );
}
