import type { Metadata } from 'next';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { chosenSiteId } from '@/app/site-choice';
import { siteOf, swapsPageOf, theConsole } from '@/services';
import { FollowChanges } from '@/ui/board/follow-changes';
import { SwapForm } from '@/ui/hunt/swap-form';
import { SwapResults } from '@/ui/hunt/swap-results';
import { FirstOffice } from '@/ui/set-up/first-office';
import { saveOfficeAction } from '../set-up/actions';
import { compareSwapAction } from '../side/actions';
import { noteSwapAction, undoSwapAction } from '../hunt/actions';

export const metadata: Metadata = { title: 'Swaps' };

export default async function SwapsPage() {
  await connection();
  await technicianOrSignIn('/swaps');
  const context = theConsole();
  const site = await siteOf(context, await chosenSiteId());
  if (site === null) return <FirstOffice save={saveOfficeAction} />;
  const { places, swaps } = await swapsPageOf(context, site.id);
  return (
    <>
      <FollowChanges />
      <h1 className="text-xl font-semibold">Swaps</h1>
      <p className="mb-4 mt-1 max-w-[44rem] text-quiet">
        One thing changed on purpose: where, and what. Runs before and after it are held against each other, and what
        was measured before no longer speaks of that part.
      </p>
      {places.length === 0 ? (
        <p className="text-quiet">Nothing has been measured here yet, so there is nothing to hold a swap against.</p>
      ) : (
        <SwapForm places={places} noteSwap={noteSwapAction.bind(null, site.id, null)} />
      )}
      <div className="mt-6">
        <SwapResults
          swaps={swaps}
          undo={undoSwapAction.bind(null, null)}
          compare={compareSwapAction.bind(null, site.id)}
        />
      </div>
    </>
  );
}
