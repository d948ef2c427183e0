import type { Metadata } from 'next';
import { connection } from 'next/server';
import QRCode from 'qrcode';
import { technicianOrSignIn } from '@/app/role';
import { chosenSiteId } from '@/app/site-choice';
import { labelsOf, siteOf, theConsole } from '@/services';
import { LabelSheet } from '@/ui/labels/label-sheet';
import { FirstOffice } from '@/ui/set-up/first-office';
import { saveOfficeAction } from '../set-up/actions';
import { makeLabelsAction, revokeLabelsAction } from './actions';

export const metadata: Metadata = { title: 'Labels' };

export default async function LabelsPage() {
  await connection();
  await technicianOrSignIn('/labels');
  const context = theConsole();
  const site = await siteOf(context, await chosenSiteId());
  if (site === null) return <FirstOffice save={saveOfficeAction} />;
  const labels = await Promise.all(
    (await labelsOf(context, site.id)).map(async (label) => ({
      ...label,
      qrSvg: await QRCode.toString(label.address, {
        type: 'svg',
        margin: 0,
        color: { dark: '#1b2733', light: '#fffdf8' },
      }),
    })),
  );
  return (
    <LabelSheet
      siteName={site.name}
      labels={labels}
      make={makeLabelsAction.bind(null, site.id)}
      revoke={revokeLabelsAction.bind(null, site.id)}
    />
  );
}
