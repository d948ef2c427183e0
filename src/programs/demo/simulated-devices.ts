import { PEER_REACHES, type Link, type MachineFacts } from '@/core';
import { deviceCookieValue, type ConsoleContext } from '@/services';
import type { Device, StoredPeer } from '@/store';
import type { DevicePractice } from './practice-document';
import { MILL_LANE_DEVICES, QUAY_STREET_DEVICES, type DemoDevice } from './scenario';

/** A device that the demo plays: what it stands by with, and the practice lines that its link is made of. */
export interface SimulatedDevice {
  readonly deviceId: string;
  readonly deviceName: string;
  readonly spotName: string;
  readonly link: Link;
  /** What it sees of itself; null: a browser. */
  readonly machine: MachineFacts | null;
  /** What its browser would hold. */
  readonly cookie: string;
  /** Port that a grant names → port of the practice line that stands for the link on the way there. */
  readonly ways: Readonly<Record<number, number>>;
}

const PLAYED: readonly DemoDevice[] = [...Object.values(MILL_LANE_DEVICES), ...Object.values(QUAY_STREET_DEVICES)];

function portOf(address: string, frontPort: number): number | null {
  if (address === '/') return frontPort;
  const port = /^:(\d+)$/.exec(address)?.[1];
  return port === undefined ? null : Number(port);
}

/** Peers of a site by the port at which this machine reaches them. */
function portsOf(peers: readonly StoredPeer[], frontPort: number): number[] {
  const ports = PEER_REACHES.flatMap((reach) => peers.filter((peer) => peer.reach === reach))
    .map((peer) => portOf(peer.address, frontPort))
    .filter((port) => port !== null);
  return [...new Set(ports)];
}

type Reads = Pick<ConsoleContext, 'store' | 'signingKey' | 'port'>;

/** All devices that the demo plays, and the practice lines that they need. `freePort` gives a loopback port. */
export async function demoDevicesOf(
  { store, signingKey, port }: Reads,
  freePort: () => Promise<number>,
): Promise<{ readonly devices: SimulatedDevice[]; readonly lines: DevicePractice[] }> {
  const devices: SimulatedDevice[] = [];
  const lines: DevicePractice[] = [];
  for (const site of (await store.sites.all()).filter(({ demo }) => demo)) {
    const [spots, peers] = await Promise.all([store.sites.spotsOf(site.id), store.sites.peersOf(site.id)]);
    for (const device of (await store.sites.devicesOf(site.id)).filter(({ simulated }) => simulated)) {
      const played = PLAYED.find(({ name }) => name === device.name);
      const plays = played?.plays ?? null;
      const ways: Record<number, number> = {};
      for (const toPort of portsOf(peers, port)) {
        if (plays === null) continue;
        ways[toPort] = await freePort();
        lines.push({ name: `${device.name} to port ${toPort}`, plays, listenPort: ways[toPort], toPort });
      }
      devices.push({
        ...simulated(device, spots.find(({ id }) => id === device.spotId)?.name ?? '', signingKey, ways),
        machine: played?.machine ?? null,
      });
    }
  }
  return { devices, lines };
}

function simulated(
  { id, name, link }: Device,
  spotName: string,
  signingKey: Reads['signingKey'],
  ways: SimulatedDevice['ways'],
): Omit<SimulatedDevice, 'machine'> {
  return { deviceId: id, deviceName: name, spotName, link, cookie: deviceCookieValue({ signingKey }, id), ways };
}
