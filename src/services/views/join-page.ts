import { proposedDevice, type Link, type ProposedDevice, type Reach } from '@/core';
import type { StoredPeer } from '@/store';
import { type ConsoleFaultCode, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { peerFor, usualPeerId } from '../office/peer-choice';
import { mayBe } from '../runs/device-of-answers';
import { admit, type Visitor } from '../access/visitor';

/** What the device page needs to be filled in already. */
export interface JoinPage {
  readonly siteName: string;
  readonly code: string | null;
  readonly devices: readonly {
    readonly id: string;
    readonly name: string;
    readonly spotName: string;
    readonly link: Link;
  }[];
  readonly spots: readonly string[];
  readonly knownDeviceId: string | null;
  /** The place of the label that was scanned; null: a code was typed. */
  readonly label: { readonly spotName: string; readonly deviceId: string | null } | null;
  /** What to call a device that is new, and what it is, as far as its browser tells. */
  readonly proposed: ProposedDevice;
  /** What stands in the way of a run just now, or makes it another than the ones before; a sentence each. */
  readonly notices: readonly string[];
  /** Reaches for which a peer is set up, the farthest first. */
  readonly reaches: readonly { readonly reach: Reach; readonly peerName: string }[];
}

const FARTHEST_FIRST: readonly Reach[] = ['internet', 'tunnel', 'local'];

async function noticesOf(context: ConsoleContext, siteId: string, peers: readonly StoredPeer[]): Promise<string[]> {
  const { runs } = context.store;
  const running = (await runs.running()).filter((run) => run.siteId === siteId);
  const notices = running.map((run) => `${run.deviceName} is measuring now. What would halve it waits for its turn.`);
  for (const reach of FARTHEST_FIRST) {
    const usualId = await usualPeerId(context, siteId, reach, peers);
    const [usual, peer] = [peers.find(({ id }) => id === usualId), await peerFor(context, siteId, reach, false)];
    if (usual !== undefined && peer !== null && usual.id !== peer.id)
      notices.push(`Runs of reach ${reach} went to ${usual.name} before; now they go to ${peer.name}.`);
  }
  return notices;
}

export async function joinPageOf(
  context: ConsoleContext,
  visitor: Visitor,
  userAgent = '',
): Promise<Outcome<JoinPage, ConsoleFaultCode>> {
  const admission = await admit(context, visitor);
  if (!admission.ok) return failed(admission.fault.code, admission.fault.facts);
  const { site, knownDeviceId, label } = admission.value;
  const { sites } = context.store;
  const [devices, spots, peers] = await Promise.all([
    sites.devicesOf(site.id),
    sites.spotsOf(site.id),
    sites.peersOf(site.id).then((all) => all.filter(({ web, agentId }) => web === null && agentId === null)),
  ]);
  const spotName = (id: string | null) => spots.find((spot) => spot.id === id)?.name ?? '';
  return {
    ok: true,
    value: {
      siteName: site.name,
      // Whoever scanned a label learns no code by it.
      code: label !== null ? label.id : visitor.code === null ? null : site.joinCode,
      label: label === null ? null : { spotName: spotName(label.spotId), deviceId: label.deviceId },
      // Those that another browser is already are nobody else's to choose.
      devices: devices
        .filter((device) => mayBe(device, admission.value, context.wallMs()))
        .map(({ id, name, spotId, link }) => ({ id, name, link, spotName: spotName(spotId) })),
      notices: await noticesOf(context, site.id, peers),
      spots: spots.map((spot) => spot.name),
      knownDeviceId,
      proposed: proposedDevice(
        userAgent,
        devices.map((device) => device.name),
      ),
      reaches: FARTHEST_FIRST.flatMap((reach) => {
        const names = peers.filter((candidate) => candidate.reach === reach).map(({ name }) => name);
        return names.length === 0 ? [] : [{ reach, peerName: names[0]! }];
      }),
    },
  };
}
