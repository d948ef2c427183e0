'use client';

import type { OpenSignIn } from '@/services';
import { Button } from '../parts/button';
import { WallTime } from '../parts/wall-time';
import { addressWords } from '../parts/address-words';
import { browserWords } from './browser-words';

interface SignInListProps {
  readonly signIns: readonly OpenSignIn[];
  /** The one by which this page is looked at, if it is among them. */
  readonly own: string | null;
  readonly end: (signInId: string) => Promise<unknown>;
}

/** Where somebody is signed in, the one used last first. */
export function SignInList({ signIns, own, end }: SignInListProps) {
  return (
    <ul className="text-[0.9375rem]">
      {signIns.map(({ id, browser, address, createdAtMs, seenAtMs }) => (
        <li key={id} className="flex min-h-10 flex-wrap items-center gap-x-4 border-b border-hairline py-1">
          <span className="min-w-[11rem]" title={browser ?? undefined}>
            {browserWords(browser)}
          </span>
          <span className="figure text-[0.8rem]">{addressWords(address)}</span>
          <span className="text-sm text-quiet">
            since <WallTime atMs={createdAtMs} />, used <WallTime atMs={seenAtMs} />
          </span>
          <span className="ml-auto">
            {id === own ? (
              <span className="text-sm text-quiet">this one</span>
            ) : (
              <Button look="quiet" onClick={() => void end(id)}>
                Sign out there
              </Button>
            )}
          </span>
        </li>
      ))}
    </ul>
  );
}
