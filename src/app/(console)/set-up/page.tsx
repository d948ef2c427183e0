import type { Metadata } from 'next';
import { connection } from 'next/server';
import { Suspense } from 'react';
import { joinFactsOf } from '@/app/join-facts';
import { technicianOrSignIn } from '@/app/role';
import { chosenSiteId } from '@/app/site-choice';
import { backupsShown, keepingShown, letterheadOf, setUpOf, theConsole } from '@/services';
import { CopiesSection } from '@/ui/set-up/copies-section';
import { DevicesSection } from '@/ui/set-up/devices-section';
import { FirstOffice } from '@/ui/set-up/first-office';
import { JoinSection } from '@/ui/set-up/join-section';
import { LetterheadSection } from '@/ui/set-up/letterhead-section';
import { KeepingSection } from '@/ui/set-up/keeping-section';
import { LinesSection } from '@/ui/set-up/lines-section';
import { OfficeSection } from '@/ui/set-up/office-section';
import { PeersSection } from '@/ui/set-up/peers-section';
import { RemovedLately } from '@/ui/set-up/removed-lately';
import { ScriptsSection } from '@/ui/set-up/scripts-section';
import { removeDemoDataAction, removeOfficeAction } from '../sites/actions';
import {
  acceptPeerKeyAction,
  backUpNowAction,
  makeTokenAction,
  mergeDevicesAction,
  openDeviceAction,
  pinPeerAction,
  putLineInUseAction,
  removeDeviceAction,
  removeLineAction,
  removePeerAction,
  removePlanAction,
  renewJoinCodeAction,
  revokeTokenAction,
  saveDeviceAction,
  saveKeepingAction,
  saveLetterheadAction,
  saveLineAction,
  saveOfficeAction,
  savePeerAction,
  saveWebFarEndAction,
  savePlanAction,
  undoRemovalAction,
} from './actions';
import { NearestPeers } from './nearest-peers';
import { PeerStateLine } from './peer-state-line';
import { WebStateLine } from './web-state-line';
import { ReachabilityLine } from './reachability-line';

export const metadata: Metadata = { title: 'Set-up' };

export default async function SetUpPage() {
  await connection();
  await technicianOrSignIn('/set-up');
  const context = theConsole();
  const setUp = await setUpOf(context, await chosenSiteId());
  const { site } = setUp;
  if (site === null) return <FirstOffice save={saveOfficeAction} />;
  const states = Object.fromEntries(
    setUp.peers.map((peer) => [
      peer.id,
      <Suspense key={peer.id} fallback={<span className="text-quiet">asking …</span>}>
        {peer.agentId !== null ? (
          <span className="text-quiet">an agent, asked to serve by each run</span>
        ) : peer.web === null ? (
          <PeerStateLine peer={peer} />
        ) : (
          <WebStateLine web={peer.web} />
        )}
      </Suspense>,
    ]),
  );
  return (
    <div className="max-w-[64rem]">
      <h1 className="mb-5 text-xl font-semibold">Set-up</h1>
      <RemovedLately removed={setUp.removed} undo={undoRemovalAction} />
      <JoinSection
        join={await joinFactsOf(setUp.port, site)}
        renewCode={renewJoinCodeAction.bind(null, site.id)}
        reachability={
          <Suspense fallback={<p className="text-sm text-quiet">Looking whether other devices can reach it …</p>}>
            <ReachabilityLine />
          </Suspense>
        }
      />
      <OfficeSection
        site={site}
        save={saveOfficeAction}
        remove={removeOfficeAction}
        removeDemoData={removeDemoDataAction}
      />
      <LinesSection
        key={site.id}
        siteId={site.id}
        lines={setUp.lines}
        switches={setUp.switches}
        actions={{
          ...{ save: saveLineAction, use: putLineInUseAction, remove: removeLineAction },
          ...{ savePlan: savePlanAction, removePlan: removePlanAction },
        }}
      />
      <DevicesSection
        actions={{
          save: saveDeviceAction,
          remove: removeDeviceAction,
          merge: mergeDevicesAction,
          open: openDeviceAction,
        }}
        siteId={site.id}
        devices={setUp.devices}
        spots={setUp.spots.map((spot) => spot.name)}
      />
      <PeersSection
        actions={{
          ...{ save: savePeerAction, remove: removePeerAction, pin: pinPeerAction, acceptKey: acceptPeerKeyAction },
          saveWeb: saveWebFarEndAction,
        }}
        siteId={site.id}
        sites={setUp.sites}
        peers={setUp.peers}
        states={states}
        nearest={
          <Suspense fallback={null}>
            <NearestPeers peers={setUp.peers} />
          </Suspense>
        }
        publicKey={setUp.publicKey}
      />
      <KeepingSection keeping={await keepingShown(context)} save={saveKeepingAction} />
      <LetterheadSection letterhead={await letterheadOf(context)} save={saveLetterheadAction} />
      <CopiesSection copies={backupsShown(context)} make={backUpNowAction} />
      <ScriptsSection apiTokens={setUp.apiTokens} make={makeTokenAction} revoke={revokeTokenAction} />
    </div>
  );
}
