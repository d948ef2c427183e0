import type { Metadata } from 'next';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { chosenSiteId } from '@/app/site-choice';
import { PEER_REACHES } from '@/core';
import { siteOf, theConsole } from '@/services';
import { FirstOffice } from '@/ui/set-up/first-office';
import { readSpan, writeSpan } from '@/ui/watch/watch-span';
import { WatchView } from '@/ui/watch/watch-view';
import { saveOfficeAction } from '../set-up/actions';
import {
  addLaneAction,
  askSoakAction,
  beginMarkAction,
  endLaneAction,
  endMarkAction,
  removeMarkAction,
} from './actions';
import { Link } from '@/ui/parts/link';

export const metadata: Metadata = { title: 'Watch' };

interface WatchPlaceProps {
  readonly searchParams: Promise<{ readonly span?: string | string[]; readonly until?: string | string[] }>;
}

const one = (value: string | string[] | undefined) => (typeof value === 'string' ? value : undefined);

/** Delay over time, as the agents of the office see it: since when, and whose fault. */
export default async function WatchPlace({ searchParams }: WatchPlaceProps) {
  await connection();
  const { span, until } = await searchParams;
  const begin = readSpan(one(span), one(until));
  await technicianOrSignIn(span === undefined ? '/watch' : `/watch?${writeSpan(begin)}`);
  const context = theConsole();
  const site = await siteOf(context, await chosenSiteId());
  if (site === null) return <FirstOffice save={saveOfficeAction} />;
  const [lanes, peers] = await Promise.all([context.store.lanes.ofSite(site.id), context.store.sites.peersOf(site.id)]);
  return (
    <>
      <h1 className="mb-2 text-xl font-semibold">Watch</h1>
      {lanes.length === 0 && (
        <p className="mb-4 max-w-[46rem]">
          Nothing is watched here yet. An agent asks the gateway, the peers and the resolvers every second, and says
          whose fault a silence was:{' '}
          <Link href="/agent" className="underline underline-offset-4">
            make a machine an agent
          </Link>
          . One that is of an older version keeps no lanes. A device whose test page stands open can be asked to watch a
          peer, below.
        </p>
      )}
      <WatchView
        key={site.id}
        siteId={site.id}
        timeZone={site.timeZone ?? Intl.DateTimeFormat().resolvedOptions().timeZone}
        nowMs={context.wallMs()}
        begin={begin}
        marks={{ begin: beginMarkAction.bind(null, site.id), end: endMarkAction, remove: removeMarkAction }}
        reaches={PEER_REACHES.filter((reach) => peers.some((peer) => peer.reach === reach))}
        askSoak={askSoakAction.bind(null, site.id)}
        addLane={addLaneAction}
        endLane={endLaneAction}
      />
    </>
  );
}
