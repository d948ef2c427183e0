import type { AuditPage } from '@/services';
import { addressWords } from '../parts/address-words';
import { WallTime } from '../parts/wall-time';
import { HappenedFilters } from './happened-filters';
import { happenedHref } from './happened-href';
import { deedWords, factWords, whoWords } from './happened-words';
import type { Kind } from './kinds';
import { Link } from '../parts/link';

interface HappenedPageProps {
  readonly page: AuditPage;
  readonly who: string | null;
  readonly kind: Kind | null;
  /** Whether there is a newer page. */
  readonly older: boolean;
}

/** What people and scripts did, the newest first: it can be read, and by nobody changed. */
export function HappenedPage({
  page: { entries, nextBeforeId, names, siteNames },
  who,
  kind,
  older,
}: HappenedPageProps) {
  return (
    <div className="max-w-[64rem]">
      <h1 className="text-xl font-semibold">What happened</h1>
      <p className="mb-4 mt-1 text-sm text-quiet">
        Who signed in, what was changed, removed and shared. It is kept for two years, and nobody can change it.
      </p>
      <HappenedFilters names={names} who={who} kind={kind} />
      {entries.length === 0 ? (
        <p className="border-y border-hairline py-4 text-quiet">
          {who === null && kind === null && !older ? 'Nothing has happened yet.' : 'Nothing like that is written down.'}
        </p>
      ) : (
        <ol>
          {entries.map((entry) => (
            <li
              key={entry.id}
              className="grid grid-cols-[9.5rem_1fr_auto] items-baseline gap-x-5 border-b border-hairline py-1.5"
            >
              <WallTime atMs={entry.atMs} className="figure text-[0.78rem] text-quiet" />
              <span className="min-w-0 break-words">
                <span className="font-semibold">{whoWords(entry)}</span> {deedWords(entry)}
                {factWords(entry).length > 0 && (
                  <span className="block text-sm text-quiet">{factWords(entry).join(' · ')}</span>
                )}
              </span>
              <span className="text-right text-sm text-quiet">
                {entry.siteId !== null && siteNames[entry.siteId] !== undefined && (
                  <span className="inline-block max-w-[14rem] truncate align-bottom">{siteNames[entry.siteId]}</span>
                )}
                {entry.address !== null && (
                  <span className="figure block text-[0.72rem]">{addressWords(entry.address)}</span>
                )}
              </span>
            </li>
          ))}
        </ol>
      )}
      <nav aria-label="Pages of what happened" className="mt-4 flex gap-6 text-sm">
        {older && (
          <Link className="underline" href={happenedHref({ who, kind, before: null })}>
            the newest
          </Link>
        )}
        {nextBeforeId !== null && (
          <Link className="underline" href={happenedHref({ who, kind, before: String(nextBeforeId) })}>
            older
          </Link>
        )}
      </nav>
    </div>
  );
}
