import type { Metadata } from 'next';
import { connection } from 'next/server';
import { Suspense } from 'react';
import { technicianOrSignIn } from '@/app/role';
import { setUpOf, shownLine, theConsole } from '@/services';
import { DevicesSection } from '@/ui/set-up/devices-section';
import { FirstOffice } from '@/ui/set-up/first-office';
import { LineSection } from '@/ui/set-up/line-section';
import { OfficeSection } from '@/ui/set-up/office-section';
import { RemovedLately } from '@/ui/set-up/removed-lately';
import { ScriptsSection } from '@/ui/set-up/scripts-section';
import { PeersSection } from '@/ui/set-up/peers-section';
import {
  makeTokenAction,
  removeDeviceAction,
  removePeerAction,
  renewJoinCodeAction,
  revokeTokenAction,
  saveDeviceAction,
  saveLineAction,
  saveOfficeAction,
  undoRemovalAction,
  savePeerAction,
} from './actions';
import { PeerStateLine } from './peer-state-line';

export const metadata: Metadata = { title: 'Set-up' };

export default async function SetUpPage() {
  await connection();
  await technicianOrSignIn('/set-up');
  const setUp = await setUpOf(theConsole());
  if (setUp.site === null) return <FirstOffice save={saveOfficeAction} />;
  const states = Object.fromEntries(
    setUp.peers.map((peer) => [
      peer.id,
      <Suspense key={peer.id} fallback={<span className="text-quiet">asking …</span>}>
        <PeerStateLine address={peer.address} />
      </Suspense>,
    ]),
  );
  return (
    <div className="max-w-[64rem]">
      <h1 className="mb-5 text-xl font-semibold">Set-up</h1>
      <RemovedLately removed={setUp.removed} undo={undoRemovalAction} />
      <OfficeSection site={setUp.site} save={saveOfficeAction} renewCode={renewJoinCodeAction} />
      <LineSection
        siteId={setUp.site.id}
        line={setUp.line}
        plan={setUp.plan}
        plans={setUp.plans}
        shown={shownLine(setUp.line, setUp.plan)}
        save={saveLineAction}
      />
      <DevicesSection
        actions={{ save: saveDeviceAction, remove: removeDeviceAction }}
        siteId={setUp.site.id}
        devices={setUp.devices}
        spots={setUp.spots.map((spot) => spot.name)}
      />
      <PeersSection
        actions={{ save: savePeerAction, remove: removePeerAction }}
        siteId={setUp.site.id}
        peers={setUp.peers}
        states={states}
        publicKey={setUp.publicKey}
      />
      <ScriptsSection apiTokens={setUp.apiTokens} make={makeTokenAction} revoke={revokeTokenAction} />
    </div>
  );
}
