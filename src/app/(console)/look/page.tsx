import type { Metadata } from 'next';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { chosenSiteId } from '@/app/site-choice';
import { LOOK_KINDS } from '@/core';
import { looksPageOf, siteOf, theConsole, type ChangedThing } from '@/services';
import { FollowChanges } from '@/ui/board/follow-changes';
import { LookForm } from '@/ui/look/look-form';
import { LookList } from '@/ui/look/look-list';
import { FirstOffice } from '@/ui/set-up/first-office';
import { NAMES_BY_DEFAULT } from '@/wire';
import { saveOfficeAction } from '../set-up/actions';
import { askLookAction, keepLoadAction, stopLookAction } from './actions';
import { Link } from '@/ui/parts/link';

export const metadata: Metadata = { title: 'Look from a machine' };

const FOLLOWED: readonly ChangedThing[] = ['looks', 'presence', 'office'];

interface LookPlaceProps {
  readonly searchParams: Promise<{ readonly what?: string | string[]; readonly target?: string | string[] }>;
}

/** Resolvers, paths, shares, delays and programs, as a machine that stands by sees them. */
export default async function LookPlace({ searchParams }: LookPlaceProps) {
  await connection();
  const { what, target } = await searchParams;
  await technicianOrSignIn(typeof what === 'string' ? `/look?what=${encodeURIComponent(what)}` : '/look');
  const context = theConsole();
  const site = await siteOf(context, await chosenSiteId());
  if (site === null) return <FirstOffice save={saveOfficeAction} />;
  const { machines, looks } = await looksPageOf(context, site.id);
  const begin = {
    what: LOOK_KINDS.find((kind) => kind === what) ?? 'path',
    target: typeof target === 'string' ? target : 'example.com',
  };
  return (
    <>
      <FollowChanges shown={FOLLOWED} />
      <h1 className="text-xl font-semibold">Look from a machine</h1>
      <p className="mb-4 mt-1 max-w-[46rem] text-quiet">
        Which resolver to take, where on the way the delay comes in, what a store can do: as an agent of this office
        sees it, now.
      </p>
      {machines.length === 0 ? (
        <p>
          No machine stands by here yet.{' '}
          <Link href="/agent" className="underline underline-offset-4">
            Make one an agent
          </Link>
          : two lines on a box that is always on.
        </p>
      ) : (
        <LookForm
          key={`${begin.what} ${begin.target}`}
          machines={machines}
          begin={begin}
          names={NAMES_BY_DEFAULT.join(', ')}
          ask={askLookAction}
        />
      )}
      <section aria-label="What was looked at" className="mt-8">
        <h2 className="mb-1 font-semibold">What was looked at</h2>
        {looks.length === 0 ? (
          <p className="text-quiet">Nothing yet.</p>
        ) : (
          <LookList looks={looks} stop={stopLookAction} keep={keepLoadAction} />
        )}
      </section>
    </>
  );
}
