import type { Port, PortReading, PortsFound, RandomSource } from '@/core';

interface PlayedPort {
  readonly name: string;
  readonly label: string | null;
  readonly speedMbps: number | null;
  readonly duplex?: 'half';
  /** Into the port and out of it, Mb/s. */
  readonly moves?: readonly [number, number];
  readonly errors?: readonly [number, number];
  readonly behind?: readonly number[];
}

/** The bindery's switch: one port came up at 100, and its cable damages frames. */
const SWITCH: readonly PlayedPort[] = [
  { name: 'port 1', label: 'router', speedMbps: 1000, moves: [24.1, 61], behind: [1] },
  { name: 'port 2', label: 'paper store', speedMbps: 1000, moves: [3.2, 1.1], behind: [2] },
  { name: 'port 3', label: 'scan room', speedMbps: 100, moves: [0.9, 0.3], errors: [18_420, 37], behind: [17] },
  { name: 'port 4', label: 'press desk', speedMbps: 1000, moves: [0.2, 4.4], behind: [21] },
  { name: 'port 5', label: 'ceiling, access point', speedMbps: 1000, moves: [12.4, 30.2], behind: [34, 57, 61] },
  { name: 'port 6', label: 'attic', speedMbps: 1000, moves: [0.1, 0.1], behind: [40] },
  { name: 'port 7', label: null, speedMbps: null },
  { name: 'port 8', label: null, speedMbps: null },
];
const UP_MS = 41 * 24 * 3600_000;
const BYTES_BEFORE = 7.1e11;

const mac = (last: number) => `02:00:5e:53:00:${last.toString(16).padStart(2, '0')}`;

function portAt(
  { name, label, speedMbps, duplex, moves, errors, behind = [] }: PlayedPort,
  place: number,
  seconds: number,
  random: RandomSource,
): Port {
  const bytes = (mbps: number) => Math.round(BYTES_BEFORE + mbps * 125_000 * seconds * (0.97 + 0.06 * random()));
  const damaged = errors === undefined ? 0 : errors[0] + (seconds > 0 ? errors[1] : 0);
  return {
    ...{ index: place + 1, name, label, speedMbps, up: speedMbps !== null },
    duplex: speedMbps === null ? null : (duplex ?? 'full'),
    ...{ inBytes: bytes(moves?.[0] ?? 0), outBytes: bytes(moves?.[1] ?? 0) },
    ...{ inErrors: damaged, outErrors: 0, checksumErrors: damaged, discards: 0, behind: behind.map(mac) },
  };
}

/** The ports of the demo's switch, ten seconds apart. */
export function simulatedPorts(target: string, seconds: number, random: RandomSource): PortsFound {
  const nowMs = Date.now();
  const reading = (after: number): PortReading => ({
    ...{ atMs: nowMs + 1000 * after, upMs: UP_MS + 1000 * after, wide: true },
    ports: SWITCH.map((port, place) => portAt(port, place, after, random)),
  });
  return { what: 'ports', target, system: 'bindery-switch', before: reading(0), after: reading(seconds) };
}
