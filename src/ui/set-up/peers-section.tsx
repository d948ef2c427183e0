'use client';

import type { ReactNode } from 'react';
import type { SetUp } from '@/services';
import { Button } from '../parts/button';
import { Confirm } from '../parts/confirm';
import type { EditActions, FormAction } from '../form/form-state';
import { Section } from './section';
import { WebFarEndForm } from './web-far-end-form';
import { ChoiceField, ActionForm, TextField } from '../form/action-form';

type Peer = SetUp['peers'][number];

export interface PeerActions extends EditActions {
  readonly pin: (peerId: string) => Promise<void>;
  readonly acceptKey: (peerId: string) => Promise<void>;
  readonly saveWeb: FormAction;
}

interface PeersSectionProps extends Pick<SetUp, 'peers' | 'publicKey' | 'sites'> {
  readonly siteId: string;
  readonly actions: PeerActions;
  /** Peer id → how it stands just now. */
  readonly states: Readonly<Record<string, ReactNode>>;
  /** Which of the peers of each reach is nearest, in words; comes later than the rest. */
  readonly nearest: ReactNode;
}

interface PeerFormProps {
  readonly siteId: string;
  readonly peer: Peer | null;
  readonly otherSites: SetUp['sites'];
  readonly actions: PeerActions;
}

function PeerForm({ siteId, peer, otherSites, actions }: PeerFormProps) {
  return (
    <ActionForm
      form="peer"
      action={actions.save}
      label={peer === null ? 'New peer' : peer.name}
      save={peer === null ? 'Add the peer' : 'Save the peer'}
      beside={
        peer !== null && (
          <Confirm
            trigger={<Button look="quiet">Remove</Button>}
            title={`Remove ${peer.name}?`}
            consequence="Devices can no longer measure against it. Runs already made keep its name. It can be put back for a day."
            action="Remove it"
            onConfirm={() => void actions.remove(peer.id)}
          />
        )
      }
    >
      <input type="hidden" name="siteId" value={siteId} />
      {peer !== null && <input type="hidden" name="peerId" value={peer.id} />}
      <div className="grid gap-x-8 gap-y-4 sm:grid-cols-2">
        <TextField name="name" label="name" value={peer?.name ?? ''} />
        <ChoiceField
          name="reach"
          label="reach"
          value={peer?.reach ?? 'internet'}
          options={[
            ['local', 'local: inside the office'],
            ['internet', 'internet: outside'],
            ['tunnel', 'tunnel: behind the VPN'],
          ]}
        />
        <TextField
          name="address"
          label="address"
          value={peer?.address ?? ''}
          hint="http://198.51.100.7:4870, or / for this machine"
        />
        {otherSites.length > 0 && (
          <ChoiceField
            name="farSiteId"
            label="behind a tunnel: it stands in"
            value={peer?.farSiteId ?? ''}
            options={[['', 'none of our offices'], ...otherSites.map(({ id, name }) => [id, name] as const)]}
          />
        )}
      </div>
      {peer !== null && peer.publicKey !== null && (
        <p className="mt-3 break-all text-sm text-quiet">
          its key <span className="figure text-[0.75rem]">{peer.publicKey}</span>
        </p>
      )}
    </ActionForm>
  );
}

/** An agent that was the far end of a run: there is nothing to say of it but that it is not wanted here. */
function RemoveFarEnd({ peer, remove }: { readonly peer: Peer; readonly remove: PeerActions['remove'] }) {
  return (
    <div className="flex flex-wrap items-baseline gap-x-4 text-sm">
      <p className="text-quiet">It serves as the far end when a run between two machines asks it to.</p>
      <Confirm
        trigger={<Button look="quiet">Remove</Button>}
        title={`Remove ${peer.name} as a far end?`}
        consequence="The agent stays, and so do the runs. It is here again with the next run to it. It can be put back for a day."
        action="Remove it"
        onConfirm={() => void remove(peer.id)}
      />
    </div>
  );
}

/** Whether runs go to this peer, and what to do about a key that changed. */
function PeerStanding({ peer, alone, actions }: { peer: Peer; alone: boolean; actions: PeerActions }) {
  if (peer.agentId !== null || (peer.otherKey === null && alone)) return null;
  return (
    <div className="flex flex-wrap items-baseline gap-x-4 pb-2 text-sm">
      {peer.otherKey !== null && (
        <>
          <p role="alert" className="font-medium text-starved">
            It shows another key than before, so nothing is measured against it. If it was set up anew, accept the key;
            if not, something else answers at its address.
          </p>
          <Confirm
            trigger={<Button className="text-sm">Accept the new key</Button>}
            title={`Is ${peer.name} still the same machine?`}
            consequence="The key that it shows now is held against it from now on; the one before is forgotten."
            action="Accept the new key"
            onConfirm={() => void actions.acceptKey(peer.id)}
          />
        </>
      )}
      {!alone &&
        (peer.pinned ? (
          <span className="text-quiet">Runs of reach {peer.reach} go to this one.</span>
        ) : (
          <form action={actions.pin.bind(null, peer.id)}>
            <Button type="submit" look="quiet" className="!min-h-7 text-sm">
              Keep to this one for {peer.reach}
            </Button>
          </form>
        ))}
    </div>
  );
}

/** The far ends of measurements, and how to start one elsewhere. */
export function PeersSection({ siteId, sites, peers, states, nearest, publicKey, actions }: PeersSectionProps) {
  const otherSites = sites.filter(({ id }) => id !== siteId);
  return (
    <Section
      title="Peers"
      hint="The far ends of measurements: one inside, one outside, one behind each tunnel. Keep to the same ones, so that results compare."
    >
      <ul>
        {peers.map((peer) => (
          <li key={peer.id} className="border-b border-hairline">
            <details>
              <summary className="grid grid-cols-[1fr_5rem_minmax(0,1.6fr)_2.5rem] gap-4 py-2 hover:bg-sheet">
                <span className="break-words">{peer.name}</span>
                <span className="text-quiet">{peer.reach}</span>
                <span className="text-sm">
                  {states[peer.id]}
                  {peer.practice && <span className="text-quiet"> · behind a practice line</span>}
                </span>
                <span className="text-sm underline decoration-hairline underline-offset-4">edit</span>
              </summary>
              <div className="pb-5 pt-2">
                {peer.agentId !== null ? (
                  <RemoveFarEnd peer={peer} remove={actions.remove} />
                ) : peer.web === null ? (
                  <PeerForm siteId={siteId} peer={peer} otherSites={otherSites} actions={actions} />
                ) : (
                  <WebFarEndForm siteId={siteId} peer={peer} save={actions.saveWeb} remove={actions.remove} />
                )}
              </div>
            </details>
            <PeerStanding
              peer={peer}
              alone={peers.filter((other) => other.reach === peer.reach).length === 1}
              actions={actions}
            />
          </li>
        ))}
        <li>
          <details>
            <summary className="py-2 underline decoration-hairline underline-offset-4 hover:decoration-ink">
              Add a peer
            </summary>
            <div className="pb-3 pt-2">
              <PeerForm key={peers.length} siteId={siteId} peer={null} otherSites={otherSites} actions={actions} />
            </div>
          </details>
          <details>
            <summary className="py-2 underline decoration-hairline underline-offset-4 hover:decoration-ink">
              No peer outside yet? Let agents load a web server
            </summary>
            <div className="pb-3 pt-2">
              <p className="mb-4 max-w-[44rem] text-sm text-quiet">
                Any web server that you may load will do for a first look: for downloads only, by agents only (
                <a href="/agent" className="underline underline-offset-4">
                  this console’s own machine
                </a>{' '}
                is one). It can show that a plan is met, never that it is not: it may be the limit itself.
              </p>
              <WebFarEndForm
                key={peers.length}
                siteId={siteId}
                peer={null}
                save={actions.saveWeb}
                remove={actions.remove}
              />
            </div>
          </details>
        </li>
      </ul>
      {nearest}
      <div className="mt-5 text-sm">
        <p className="text-quiet">
          A peer of your own outside takes one line on any machine that others can reach. It measures only for consoles
          whose key it was given. From a copy of this program, or from its image:
        </p>
        <p className="figure mt-1 break-all border border-hairline bg-sheet px-3 py-2 text-[0.8rem] select-all">
          npm run peer -- --name &quot;outside peer&quot; --trust {publicKey}
        </p>
        <p className="figure mt-1 break-all border border-hairline bg-sheet px-3 py-2 text-[0.8rem] select-all">
          podman run -d -p 4870:4870 -v peer-key:/data bent-straw-peer --name &quot;outside peer&quot; --trust{' '}
          {publicKey}
        </p>
        {otherSites.length > 0 && (
          <p className="mt-3 text-quiet">
            {otherSites[0]!.name} can be a far end too: a peer that runs there, with reach tunnel behind a VPN or
            internet over its own address, measures the way between both offices.
          </p>
        )}
      </div>
    </Section>
  );
}
