import type { Link, PeerReach } from '@/core';
import type { SimulatedDirection, SimulatedLine } from '../samples';
import { MILL_LANE, QUAY_STREET, TUNNEL_SHARE, wifi, type DemoDeviceKey, type DemoLine } from './offices';

/** Three weeks of what people and the two agents measured. */
const DAYS = 21;
export const ROUTER_REPLACED = { daysAgo: 9, hour: 10 } as const;

/** Something measured in the demo's history. `agoH`: hours before now, or an hour of so many days ago. */
export interface DemoRun {
  readonly device: DemoDeviceKey;
  readonly reach: PeerReach;
  readonly line: SimulatedLine;
  readonly when:
    | { readonly agoH: number }
    | { readonly daysAgo: number; readonly hour: number; readonly minute?: number };
  readonly over?: Link;
  /** Made by itself, once; a person who is there makes three for a set. */
  readonly scheduled?: true;
  readonly ends?: 'device-vanished' | 'cancelled';
  /** What others moved over the line meanwhile, as its router counted, Mb/s; absent: nobody read it. */
  readonly others?: { readonly down: number; readonly up: number };
  /** The device was too busy to keep time for this share of it. */
  readonly busy?: number;
}

function direction(mbps: number, queueMs: number, swing = 0.004, dips = 0): SimulatedDirection {
  return { rateBps: mbps * 1e6, queueMs, swing, dips };
}

function inside(down: number, up: number, swing = 0.004, dips = 0, jitterMs = 0.15): SimulatedLine {
  const idleMs = jitterMs > 1 ? 4.5 : 1.3;
  const queueMs = jitterMs > 1 ? 38 : 3;
  return { idleMs, jitterMs, down: direction(down, queueMs, swing, dips), up: direction(up, queueMs, swing, dips) };
}

/** A queue fills only where the line is the narrowest part. */
function over(line: DemoLine, down: number, up: number, swing = 0.005, dips = 0, jitterMs = 0.4): SimulatedLine {
  const filled = (rate: number, advertised: number, queueMs: number) =>
    rate > 0.85 * advertised ? queueMs : Math.min(queueMs, 30);
  return {
    idleMs: line.roundTripMs + 1.2 + (jitterMs > 1 ? 3 : 0),
    jitterMs,
    down: direction(down, filled(down, line.downMbps, line.downQueueMs), swing, dips),
    up: direction(up, filled(up, line.upMbps, line.upQueueMs - 6), swing, dips),
  };
}

const mill = (...figures: [number, number, number?, number?, number?]) => over(MILL_LANE.line, ...figures);
const quay = (...figures: [number, number, number?, number?, number?]) => over(QUAY_STREET.line, ...figures);
const GLUE_5 = wifi('5', 'glue room ceiling', 100, 80, -66);

/** Through the tunnel the shop's upload is the slower end on the way to Mill Lane. */
function tunnel(downMbps: number, upMbps: number): SimulatedLine {
  const { roundTripMs, upQueueMs } = QUAY_STREET.line;
  return {
    idleMs: roundTripMs + MILL_LANE.line.roundTripMs + 2,
    jitterMs: 0.8,
    down: direction(downMbps * TUNNEL_SHARE, upQueueMs),
    up: direction(upMbps * TUNNEL_SHARE, upQueueMs),
  };
}

const VISIT: readonly DemoRun[] = [
  { device: 'press', reach: 'local', line: inside(939.8, 938.1), when: { agoH: 3.1 } },
  { device: 'press', reach: 'internet', line: mill(487.2, 97.1), when: { agoH: 2.9 } },
  { device: 'press', reach: 'tunnel', line: tunnel(20, 100), when: { agoH: 2.8 } },
  { device: 'press', reach: 'local', line: inside(938.9, 937.7), when: { agoH: 51 } },
  { device: 'scan', reach: 'local', line: inside(93.9, 93.8, 0.002), when: { agoH: 2.5 } },
  { device: 'scan', reach: 'internet', line: mill(93.6, 92.9, 0.003), when: { agoH: 2.4 } },
  { device: 'scan', reach: 'internet', line: mill(93.5, 92.8, 0.003), when: { agoH: 74 } },
  { device: 'bench', reach: 'local', line: inside(384, 291, 0.03), when: { agoH: 2.1 }, busy: 0.3 },
  { device: 'bench', reach: 'internet', line: mill(371, 94.8, 0.03), when: { agoH: 2.0 }, busy: 0.3 },
  { device: 'bench', reach: 'local', line: inside(379, 288, 0.03), when: { agoH: 75 } },
  { device: 'glue', reach: 'local', line: inside(21.4, 14.2, 0.25, 0.14, 6), when: { agoH: 1.7 } },
  { device: 'glue', reach: 'internet', line: mill(18.9, 12.6, 0.25, 0.14, 7), when: { agoH: 1.6 } },
  { device: 'glue', reach: 'local', line: inside(164, 141, 0.06, 0, 1.4), when: { agoH: 1.4 }, over: GLUE_5 },
  { device: 'glue', reach: 'internet', line: mill(158, 95.2, 0.06, 0, 1.4), when: { agoH: 1.35 }, over: GLUE_5 },
  { device: 'accounts', reach: 'local', line: inside(414, 377, 0.04, 0, 1.2), when: { agoH: 1.1 } },
  { device: 'accounts', reach: 'internet', line: mill(398, 96.3, 0.04, 0, 1.2), when: { agoH: 1.0 } },
  { device: 'accounts', reach: 'internet', line: mill(388, 95.9, 0.04, 0, 1.2), when: { agoH: 27 } },
  {
    ...{ device: 'accounts', reach: 'internet', line: mill(391, 96.1, 0.04, 0, 1.2), when: { agoH: 26 } },
    ends: 'device-vanished',
  },
  { device: 'scan', reach: 'internet', line: mill(93.5, 92.8), when: { agoH: 2.45 }, ends: 'cancelled' },
  { device: 'attic', reach: 'local', line: inside(940.1, 938.6), when: { agoH: 30 }, scheduled: true },
  { device: 'counter', reach: 'local', line: inside(940.2, 938.9), when: { agoH: 22.4 } },
  { device: 'counter', reach: 'internet', line: quay(146.8, 19.4), when: { agoH: 22.2 } },
  { device: 'counter', reach: 'tunnel', line: tunnel(100, 20), when: { agoH: 22 } },
  { device: 'stock', reach: 'local', line: inside(258, 229, 0.05, 0, 1.3), when: { agoH: 21.6 } },
  { device: 'stock', reach: 'internet', line: quay(144.9, 19.3, 0.02, 0, 1.3), when: { agoH: 21.5 } },
];

/** In the demo's evenings a copy goes away over the line for three quarters of an hour: what is scheduled waits until it is over. */
const COPY = { hour: 20, others: { down: 1.7, up: 82.6 }, overAtMinute: 47 } as const;
const HARDLY_ANYBODY = { down: 0.9, up: 0.2 } as const;

/**
 * The workshop's line sags between 19:00 and 22:00, with nearly nobody on it; its agent looks every three hours, and each hour of an
 * evening.
 */
function attic(daysAgo: number, hour: number): DemoRun {
  const sags = hour >= 19 && hour < 22;
  const down = sags ? 331 - (daysAgo % 7) * 6 : 484 + (daysAgo % 5) / 2;
  const line = mill(down, sags ? 95.1 : 97, sags ? 0.03 : undefined);
  const when = hour === COPY.hour ? { daysAgo, hour, minute: COPY.overAtMinute } : { daysAgo, hour };
  return { device: 'attic', reach: 'internet', line, when, scheduled: true, others: HARDLY_ANYBODY };
}

/** Yesterday somebody did not wait for the copy. */
function amidTheCopy(): DemoRun {
  const run = attic(1, COPY.hour);
  const line = { ...run.line, up: { ...run.line.up, rateBps: 14.8e6, swing: 0.02 } };
  return { ...run, line, when: { daysAgo: 1, hour: COPY.hour }, others: COPY.others };
}

/** Before the shop's router was replaced its upload was slow and its queue long. */
function shopAgent(daysAgo: number, hour: number): DemoRun {
  const { line } = QUAY_STREET;
  const before = { ...line, downQueueMs: 140, upQueueMs: 420 };
  const measured =
    daysAgo > ROUTER_REPLACED.daysAgo || (daysAgo === ROUTER_REPLACED.daysAgo && hour < ROUTER_REPLACED.hour)
      ? over(before, 131 - (daysAgo % 4), 17.4, 0.03)
      : quay(146.5 - (daysAgo % 3) / 4, 19.4);
  return { device: 'shopAgent', reach: 'internet', line: measured, when: { daysAgo, hour }, scheduled: true };
}

function schedule(): DemoRun[] {
  const days = Array.from({ length: DAYS }, (_, index) => DAYS - index);
  return days.flatMap((daysAgo) => [
    ...[2, 5, 8, 11, 14, 17, 18, 19, 20, 21, 22, 23].map((hour) => attic(daysAgo, hour)),
    ...[3, 9, 13, 17, 20].map((hour) => shopAgent(daysAgo, hour)),
  ]);
}

/** All of it, in no order of time. */
export const RUNS: readonly DemoRun[] = [
  ...VISIT,
  { ...attic(0, 0), line: mill(486.9, 97.2), when: { agoH: 0.4 } },
  { ...shopAgent(0, 0), when: { agoH: 0.7 } },
  ...schedule(),
  amidTheCopy(),
];
