import type { Link, Reach } from '@/core';
import { type ConsoleFaultCode, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from './console-context';
import { admit, type Visitor } from './visitor';

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
  /** Reaches for which a peer is set up, the farthest first. */
  readonly reaches: readonly { readonly reach: Reach; readonly peerName: string }[];
}

const FARTHEST_FIRST: readonly Reach[] = ['internet', 'tunnel', 'local'];

export async function joinPageOf(
  context: ConsoleContext,
  visitor: Visitor,
): Promise<Outcome<JoinPage, ConsoleFaultCode>> {
  const admission = await admit(context, visitor);
  if (!admission.ok) return failed(admission.fault.code, admission.fault.facts);
  const { site, knownDeviceId } = admission.value;
  const { sites } = context.store;
  const [devices, spots, peers] = await Promise.all([
    sites.devicesOf(site.id),
    sites.spotsOf(site.id),
    sites.peersOf(site.id),
  ]);
  const spotName = (id: string | null) => spots.find((spot) => spot.id === id)?.name ?? '';
  return {
    ok: true,
    value: {
      siteName: site.name,
      code: visitor.code === null ? null : site.joinCode,
      devices: devices.map(({ id, name, spotId, link }) => ({ id, name, link, spotName: spotName(spotId) })),
      spots: spots.map((spot) => spot.name),
      knownDeviceId,
      reaches: FARTHEST_FIRST.flatMap((reach) => {
        const peer = peers.find((candidate) => candidate.reach === reach);
        return peer === undefined ? [] : [{ reach, peerName: peer.name }];
      }),
    },
  };
}
