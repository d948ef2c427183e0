import type { Metadata } from 'next';
import { connection } from 'next/server';
import { technicianOrSignIn } from '@/app/role';
import { chosenSiteId } from '@/app/site-choice';
import { broughtInOf, siteOf, theConsole } from '@/services';
import { BringInView } from '@/ui/import/bring-in-view';
import { FirstOffice } from '@/ui/set-up/first-office';
import { saveOfficeAction } from '../../set-up/actions';
import { undoImportAction } from './actions';

export const metadata: Metadata = { title: 'Bring runs in' };

/** Runs out of a file into the ledger. */
export default async function BringInPage() {
  await connection();
  await technicianOrSignIn('/ledger/bring-in');
  const context = theConsole();
  const site = await siteOf(context, await chosenSiteId());
  if (site === null) return <FirstOffice save={saveOfficeAction} />;
  return (
    <BringInView
      siteId={site.id}
      files={await broughtInOf(context, site.id)}
      timeZone={site.timeZone}
      nowMs={context.wallMs()}
      undo={undoImportAction}
    />
  );
}
