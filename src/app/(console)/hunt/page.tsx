import type { Metadata } from 'next';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { chosenSiteId } from '@/app/site-choice';
import { huntsOf, siteOf, theConsole } from '@/services';
import { FollowChanges } from '@/ui/board/follow-changes';
import { HuntList } from '@/ui/hunt/hunt-list';
import { FirstOffice } from '@/ui/set-up/first-office';
import { saveOfficeAction } from '../set-up/actions';
import { openHuntAction } from './actions';
import { Link } from '@/ui/parts/link';

export const metadata: Metadata = { title: 'Hunt' };

export default async function HuntsPage() {
  await connection();
  await technicianOrSignIn('/hunt');
  const context = theConsole();
  const site = await siteOf(context, await chosenSiteId());
  if (site === null) return <FirstOffice save={saveOfficeAction} />;
  const [hunts, devices] = await Promise.all([huntsOf(context, site.id), context.store.sites.devicesOf(site.id)]);
  return (
    <>
      <FollowChanges />
      <h1 className="text-xl font-semibold">Hunt</h1>
      <p className="mb-4 mt-1 max-w-[44rem] text-quiet">
        A hunt leads by the fewest tests to what holds back. Begin with who suffers, or from a finding on the{' '}
        <Link href="/" className="text-ink underline underline-offset-4">
          board
        </Link>
        .
      </p>
      <HuntList
        hunts={hunts}
        devices={devices.map(({ id, name }) => ({ id, name }))}
        open={openHuntAction.bind(null, site.id)}
      />
    </>
  );
}
