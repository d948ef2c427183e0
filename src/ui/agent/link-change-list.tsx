'use client';

import type { ShownLinkChange } from '@/services';
import { Button } from '../parts/button';
import { RefusedNote } from '../parts/refused-note';
import { useActs } from '../parts/use-acts';
import { WallTime } from '../parts/wall-time';
import { Link } from '../parts/link';

interface LinkChangeListProps {
  readonly changes: readonly ShownLinkChange[];
  readonly seen: (id: string) => Promise<string | null>;
}

/** Facts of links that are other ones than before: told until somebody has seen them. */
export function LinkChangeList({ changes, seen }: LinkChangeListProps) {
  const { working, refused, does } = useActs();
  return (
    <div aria-busy={working}>
      <RefusedNote refused={refused} />
      <ul>
        {changes.map(({ id, deviceName, atMs, sentence, seenAtMs }) => (
          <li key={id} className="flex flex-wrap items-baseline gap-x-4 border-t border-hairline py-1.5">
            <span className={`min-w-0 break-words ${seenAtMs === null ? 'font-medium' : 'text-quiet'}`}>
              {deviceName}: {sentence}
            </span>
            <span className="text-sm text-quiet">
              seen first <WallTime atMs={atMs} />
            </span>
            {seenAtMs === null && (
              <span className="ml-auto flex gap-3 text-sm">
                <Link href="/swaps" className="underline decoration-hairline underline-offset-4 hover:decoration-ink">
                  It was a swap: write it down
                </Link>
                <Button
                  look="quiet"
                  className="!min-h-0 !px-1 text-sm"
                  disabled={working}
                  onClick={does(() => seen(id))}
                >
                  Seen
                </Button>
              </span>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}
