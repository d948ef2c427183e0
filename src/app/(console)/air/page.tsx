import type { Metadata } from 'next';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { chosenSiteId } from '@/app/site-choice';
import { AIR_DAYS, airPageOf, siteOf, theConsole, type ChangedThing } from '@/services';
import { AirView } from '@/ui/air/air-view';
import { FollowChanges } from '@/ui/board/follow-changes';
import { FirstOffice } from '@/ui/set-up/first-office';
import { saveOfficeAction } from '../set-up/actions';

export const metadata: Metadata = { title: 'Air' };

const FOLLOWED: readonly ChangedThing[] = ['looks', 'runs', 'office', 'presence'];

/** Which channel to take, where the signal is weak, and who hears which access point. */
export default async function AirPlace() {
  await connection();
  await technicianOrSignIn('/air');
  const context = theConsole();
  const site = await siteOf(context, await chosenSiteId());
  if (site === null) return <FirstOffice save={saveOfficeAction} />;
  return (
    <>
      <FollowChanges shown={FOLLOWED} />
      <h1 className="mb-4 text-xl font-semibold">Air</h1>
      <AirView air={await airPageOf(context, site.id)} days={AIR_DAYS} nowMs={context.wallMs()} />
    </>
  );
}
