import type { DeviceKind, Link, MachineFacts } from '@/core';
import { demoMachine } from './demo-machine';

/** Larkspur Bindery, a made-up business that repairs old books: a workshop and a shop, joined by a tunnel. */
export interface DemoLine {
  readonly name: string;
  readonly provider: string;
  readonly downMbps: number;
  readonly upMbps: number;
  readonly leastDownMbps: number;
  readonly leastUpMbps: number;
  /** The empty line's round trip, and its queues when full. */
  readonly roundTripMs: number;
  readonly downQueueMs: number;
  readonly upQueueMs: number;
}

export interface DemoDevice {
  readonly name: string;
  readonly spot: string;
  readonly kind: DeviceKind;
  readonly link: Link;
  readonly notes?: string;
  /** What it sees of itself, where it is a machine that stands by without a person. */
  readonly machine?: MachineFacts;
  /** What its link really lets through, for a device that stands by: payload in Mb/s, queue and round trip in ms. */
  readonly plays?: {
    readonly downMbps: number;
    readonly upMbps: number;
    readonly queueMs: number;
    readonly roundTripMs: number;
  };
}

const cable = (mbps: number): Link => ({ medium: 'wired', negotiatedBps: mbps * 1e6, mtuBytes: 1500 });
export const wifi = (
  band: '2.4' | '5',
  accessPoint: string,
  channel: number,
  widthMHz: number,
  signalDbm: number,
): Link => ({
  ...{ medium: 'wifi', band, linkRateBps: null, accessPoint, channel, widthMHz, signalDbm },
});

/** The workshop. Its router's upload queue is a fault to be found, and its line sags in the evening. */
export const MILL_LANE = {
  name: 'Larkspur Bindery · Mill Lane',
  line: {
    ...{ name: 'Tarnfell Fibre 500/100', provider: 'Tarnfell Fibre', downMbps: 500, upMbps: 100 },
    ...{ leastDownMbps: 300, leastUpMbps: 60, roundTripMs: 14, downQueueMs: 25, upQueueMs: 240 },
  },
  insidePeer: 'cupboard under the stairs',
  outsidePeer: 'Hilltop exchange',
  tunnelPeer: 'Quay Street, back room',
} as const satisfies { readonly line: DemoLine } & Readonly<Record<string, unknown>>;

/** The shop. Its router was replaced nine days ago, and it helped. */
export const QUAY_STREET = {
  name: 'Larkspur Bindery · Quay Street',
  line: {
    ...{ name: 'Brackwater Cable 150/20', provider: 'Brackwater Cable', downMbps: 150, upMbps: 20 },
    ...{ leastDownMbps: 90, leastUpMbps: 12, roundTripMs: 19, downQueueMs: 18, upQueueMs: 22 },
  },
  insidePeer: 'back room shelf',
  outsidePeer: 'Hilltop exchange',
  tunnelPeer: 'Mill Lane, under the stairs',
} as const satisfies { readonly line: DemoLine } & Readonly<Record<string, unknown>>;

/** What the tunnel's own headers leave of its line. */
export const TUNNEL_SHARE = 0.935;

/** Faults among the devices: the scan room's cable, the bench laptop itself, and an intercom on the glue room's 2.4 GHz. */
export const MILL_LANE_DEVICES = {
  press: {
    ...{ name: 'Press desk', spot: 'Workshop', kind: 'desktop', link: cable(1000) },
    plays: { downMbps: 941, upMbps: 941, queueMs: 3, roundTripMs: 0.4 },
  },
  scan: {
    ...{ name: 'Scan room workstation', spot: 'Scan room', kind: 'desktop', link: cable(100) },
    notes: 'Grey cable along the skirting board.',
    plays: { downMbps: 94.1, upMbps: 94.1, queueMs: 6, roundTripMs: 0.4 },
  },
  bench: {
    ...{ name: 'Finishing bench laptop', spot: 'Workshop', kind: 'laptop', link: cable(1000) },
    plays: { downMbps: 384, upMbps: 291, queueMs: 5, roundTripMs: 0.6 },
  },
  glue: {
    ...{
      name: 'Glue room tablet',
      spot: 'Glue room',
      kind: 'tablet',
      link: wifi('2.4', 'glue room ceiling', 6, 20, -73),
    },
    plays: { downMbps: 21, upMbps: 14, queueMs: 38, roundTripMs: 4 },
  },
  accounts: {
    ...{ name: 'Accounts laptop', spot: 'Office', kind: 'laptop', link: wifi('5', 'office ceiling', 44, 80, -54) },
    plays: { downMbps: 414, upMbps: 377, queueMs: 30, roundTripMs: 3 },
  },
  attic: {
    ...{ name: 'Attic agent', spot: 'Attic', kind: 'box', link: cable(1000), machine: demoMachine('198.51.100.1') },
    plays: { downMbps: 941, upMbps: 941, queueMs: 3, roundTripMs: 0.4 },
  },
} as const satisfies Record<string, DemoDevice>;

export const QUAY_STREET_DEVICES = {
  counter: {
    ...{ name: 'Front counter', spot: 'Shop floor', kind: 'desktop', link: cable(1000) },
    plays: { downMbps: 941, upMbps: 941, queueMs: 3, roundTripMs: 0.4 },
  },
  stock: {
    ...{ name: 'Stockroom laptop', spot: 'Stockroom', kind: 'laptop', link: wifi('5', 'shop ceiling', 36, 80, -63) },
    plays: { downMbps: 260, upMbps: 230, queueMs: 24, roundTripMs: 3 },
  },
  shopAgent: {
    ...{ name: 'Shop agent', spot: 'Back room', kind: 'box', link: cable(1000), machine: demoMachine('203.0.113.1') },
  },
} as const satisfies Record<string, DemoDevice>;

export type DemoDeviceKey = keyof typeof MILL_LANE_DEVICES | keyof typeof QUAY_STREET_DEVICES;
