import type { Metadata } from 'next';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import {
  officesAtAGlance,
  officesRemovedLately,
  sitesOverview,
  theConsole,
  type OfficeGlance,
  type SiteSummary,
} from '@/services';
import { OfficeTable } from '@/ui/sites/office-table';
import { FollowChanges } from '@/ui/board/follow-changes';
import { AddOffice } from '@/ui/sites/add-office';
import { RemovedOffices } from '@/ui/sites/removed-offices';
import { SiteBeside } from '@/ui/sites/site-beside';
import { addOfficeAction, chooseSiteAction, putBackOfficeAction } from './actions';

export const metadata: Metadata = { title: 'All offices' };

/** So many offices are drawn one below the other, too. */
const MOST_DRAWN = 8;

/** As they stand in the list. */
function inOrder(sites: readonly SiteSummary[], glances: readonly OfficeGlance[]): SiteSummary[] {
  return glances.flatMap(({ siteId }) => sites.find(({ site }) => site.id === siteId) ?? []);
}

export default async function SitesPage() {
  await connection();
  await technicianOrSignIn('/sites');
  const context = theConsole();
  const [glances, removed] = await Promise.all([officesAtAGlance(context), officesRemovedLately(context)]);
  // Of many the list is enough: each has a board of its own.
  const sites = glances.length <= MOST_DRAWN ? await sitesOverview(context) : [];
  const nowMs = context.wallMs();
  return (
    <>
      <FollowChanges />
      <h1 className="text-xl font-semibold">All offices, each against its own plan</h1>
      <p className="mb-4 mt-1 text-quiet">
        Medians of all runs of the last seven days; the notch is the yardstick. Those with the most trouble come first.
      </p>
      <RemovedOffices offices={removed.map(({ id, name }) => ({ id, name }))} putBack={putBackOfficeAction} />
      {glances.length === 0 && <p>There is no office yet. Name the first one.</p>}
      {glances.length > 1 && <OfficeTable offices={glances} nowMs={nowMs} open={chooseSiteAction} />}
      <ul className={glances.length > 1 ? 'mt-8' : ''}>
        {inOrder(sites, glances).map((summary) => (
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
