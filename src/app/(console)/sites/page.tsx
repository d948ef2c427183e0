import type { Metadata } from 'next';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { officesRemovedLately, sitesOverview, theConsole } from '@/services';
import { AddOffice } from '@/ui/sites/add-office';
import { RemovedOffices } from '@/ui/sites/removed-offices';
import { SiteBeside } from '@/ui/sites/site-beside';
import { addOfficeAction, chooseSiteAction, putBackOfficeAction } from './actions';

export const metadata: Metadata = { title: 'All offices' };

export default async function SitesPage() {
  await connection();
  await technicianOrSignIn('/sites');
  const context = theConsole();
  const [sites, removed] = await Promise.all([sitesOverview(context), officesRemovedLately(context)]);
  const nowMs = context.wallMs();
  return (
    <>
      <h1 className="text-xl font-semibold">All offices, each against its own plan</h1>
      <p className="mb-5 mt-1 text-quiet">Medians of all runs of the last seven days; the notch is the yardstick.</p>
      <RemovedOffices offices={removed.map(({ id, name }) => ({ id, name }))} putBack={putBackOfficeAction} />
      {sites.length === 0 && <p>There is no office yet. Name the first one.</p>}
      <ul>
        {sites.map((summary) => (
          <SiteBeside
            key={summary.site.id}
            summary={summary}
            nowMs={nowMs}
            open={chooseSiteAction.bind(null, summary.site.id)}
          />
        ))}
      </ul>
      <AddOffice add={addOfficeAction} />
    </>
  );
}
