import type { Link, Reach } from '@/core';
import type { SimulatedDirection, SimulatedLine } from './simulate-samples';

/** Larkspur Bindery, a made-up office that repairs old books, with the faults that are built into it. */
export const OFFICE_NAME = 'Larkspur Bindery · Mill Lane';
export const LINE = { name: 'Tarnfell Fibre 500/100', provider: 'Tarnfell Fibre', downMbps: 500, upMbps: 100 } as const;
export const OUTSIDE_PEER_NAME = 'Hilltop exchange';
export const INSIDE_PEER_NAME = 'cupboard under the stairs';

/** The empty line's round trip, and its queues when full: the upload queue is the router's fault. */
export const LINE_ROUND_TRIP_MS = 14;
export const LINE_DOWN_QUEUE_MS = 25;
export const LINE_UP_QUEUE_MS = 240;

const cable = (mbps: number): Link => ({ medium: 'wired', negotiatedBps: mbps * 1e6, mtuBytes: 1500 });
const wifi = (band: '2.4' | '5'): Link => ({ medium: 'wifi', band, linkRateBps: null });

export interface DemoDevice {
  readonly name: string;
  readonly spot: string;
  readonly link: Link;
}

export const DEVICES = {
  press: { name: 'Press desk', spot: 'Workshop', link: cable(1000) },
  scan: { name: 'Scan room workstation', spot: 'Scan room', link: cable(100) },
  bench: { name: 'Finishing bench laptop', spot: 'Workshop', link: cable(1000) },
  glue: { name: 'Glue room tablet', spot: 'Glue room', link: wifi('2.4') },
  accounts: { name: 'Accounts laptop', spot: 'Office', link: wifi('5') },
  attic: { name: 'Attic agent', spot: 'Attic', link: cable(1000) },
} as const satisfies Record<string, DemoDevice>;

export type DemoDeviceKey = keyof typeof DEVICES;

function direction(mbps: number, queueMs: number, swing = 0.004, dips = 0): SimulatedDirection {
  return { rateBps: mbps * 1e6, queueMs, swing, dips };
}

function inside(down: number, up: number, swing = 0.004, dips = 0, jitterMs = 0.15): SimulatedLine {
  const idleMs = jitterMs > 1 ? 4.5 : 1.3;
  const queueMs = jitterMs > 1 ? 38 : 3;
  return { idleMs, jitterMs, down: direction(down, queueMs, swing, dips), up: direction(up, queueMs, swing, dips) };
}

function outside(down: number, up: number, swing = 0.005, dips = 0, jitterMs = 0.4): SimulatedLine {
  const idleMs = LINE_ROUND_TRIP_MS + 1.2 + (jitterMs > 1 ? 3 : 0);
  // A queue fills only where the line is the narrowest part.
  return {
    idleMs,
    jitterMs,
    down: direction(down, down > 450 ? LINE_DOWN_QUEUE_MS : 6, swing, dips),
    up: direction(up, up > 85 ? LINE_UP_QUEUE_MS - 6 : 30, swing, dips),
  };
}

/** Something measured in the demo's history. `agoH`: hours before now, or the evening of so many days ago when the line sags. */
export interface DemoRun {
  readonly device: DemoDeviceKey;
  readonly reach: Reach;
  readonly line: SimulatedLine;
  readonly when: { readonly agoH: number } | { readonly daysAgo: number; readonly hour: number };
  readonly over?: Link;
  /** Made by itself, once; a person who is there makes three for a set. */
  readonly scheduled?: true;
  readonly ends?: 'device-vanished' | 'cancelled';
}

const evening = (daysAgo: number, hour: number) => ({ daysAgo, hour });

export const RUNS: readonly DemoRun[] = [
  { device: 'press', reach: 'local', line: inside(939.8, 938.1), when: { agoH: 3.1 } },
  { device: 'press', reach: 'internet', line: outside(487.2, 97.1), when: { agoH: 2.9 } },
  { device: 'press', reach: 'local', line: inside(938.9, 937.7), when: { agoH: 51 } },
  { device: 'scan', reach: 'local', line: inside(93.9, 93.8, 0.002), when: { agoH: 2.5 } },
  { device: 'scan', reach: 'internet', line: outside(93.6, 92.9, 0.003), when: { agoH: 2.4 } },
  { device: 'scan', reach: 'internet', line: outside(93.5, 92.8, 0.003), when: { agoH: 74 } },
  { device: 'bench', reach: 'local', line: inside(384, 291, 0.03), when: { agoH: 2.1 } },
  { device: 'bench', reach: 'internet', line: outside(371, 94.8, 0.03), when: { agoH: 2.0 } },
  { device: 'bench', reach: 'local', line: inside(379, 288, 0.03), when: { agoH: 75 } },
  { device: 'glue', reach: 'local', line: inside(21.4, 14.2, 0.25, 0.14, 6), when: { agoH: 1.7 } },
  { device: 'glue', reach: 'internet', line: outside(18.9, 12.6, 0.25, 0.14, 7), when: { agoH: 1.6 } },
  { device: 'glue', reach: 'local', line: inside(164, 141, 0.06, 0, 1.4), when: { agoH: 1.4 }, over: wifi('5') },
  { device: 'glue', reach: 'internet', line: outside(158, 95.2, 0.06, 0, 1.4), when: { agoH: 1.35 }, over: wifi('5') },
  { device: 'accounts', reach: 'local', line: inside(414, 377, 0.04, 0, 1.2), when: { agoH: 1.1 } },
  { device: 'accounts', reach: 'internet', line: outside(398, 96.3, 0.04, 0, 1.2), when: { agoH: 1.0 } },
  { device: 'accounts', reach: 'internet', line: outside(388, 95.9, 0.04, 0, 1.2), when: { agoH: 27 } },
  {
    device: 'accounts',
    reach: 'internet',
    line: outside(391, 96.1, 0.04, 0, 1.2),
    when: { agoH: 26 },
    ends: 'device-vanished',
  },
  { device: 'scan', reach: 'internet', line: outside(93.5, 92.8), when: { agoH: 2.45 }, ends: 'cancelled' },
  { device: 'attic', reach: 'local', line: inside(940.1, 938.6), when: { agoH: 30 }, scheduled: true },
  { device: 'attic', reach: 'internet', line: outside(486.9, 97.2), when: { agoH: 0.4 }, scheduled: true },
  ...[1, 2, 3, 4, 5, 6].flatMap((daysAgo): DemoRun[] => [
    {
      device: 'attic',
      reach: 'internet',
      line: outside(484 + daysAgo / 2, 97),
      when: evening(daysAgo, 11),
      scheduled: true,
    },
    {
      device: 'attic',
      reach: 'internet',
      line: outside(331 - daysAgo * 6, 95.1, 0.03),
      when: evening(daysAgo, 20),
      scheduled: true,
    },
  ]),
];
