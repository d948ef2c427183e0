import type { Occasion } from './observation';
import type { DiagnosedKind, DiagnosedSegment, SoundRange } from './segment';

/** A made-up office for tests of the diagnosis: a few devices, one line, one peer inside and one outside. */

const ETHERNET = { lowBps: 0.93 * 941e6, highBps: 941e6 };
export const LINE_RANGE = { down: { lowBps: 450e6, highBps: 515e6 }, up: { lowBps: 90e6, highBps: 103e6 } } as const;

export function segmentFor(
  id: string,
  kind: DiagnosedKind,
  sound: SoundRange | null = null,
  rest: Partial<DiagnosedSegment> = {},
): DiagnosedSegment {
  return {
    ...{ id, kind, name: null, deviceId: null, band: null, accessPoint: null, generation: 0, hours: null },
    sound: { down: sound, up: sound },
    ...rest,
  };
}

export const SHARED = [
  segmentFor('hop', 'hop'),
  segmentFor('router', 'router'),
  segmentFor('line:l', 'line', null, { name: 'Tarnfell Fibre 500/100', sound: LINE_RANGE }),
  segmentFor('far:out', 'far-network'),
  segmentFor('peer:internet:out', 'peer'),
  segmentFor('peer:local:in', 'peer', ETHERNET),
];

/** A device with a cable that came up at a gigabit. */
export function onCable(id: string): DiagnosedSegment[] {
  return [
    segmentFor(`device:${id}`, 'device', null, { name: id, deviceId: id }),
    segmentFor(`cable:${id}`, 'cable', ETHERNET, { name: id, deviceId: id }),
  ];
}

interface Measured {
  readonly down?: number;
  readonly up?: number;
  readonly addedUp?: number;
  readonly addedDown?: number;
  readonly atMs?: number;
  readonly hour?: number;
  readonly flags?: Occasion['flags'];
  readonly link?: string;
  readonly resentShare?: number;
}

let counter = 0;

/** One occasion of a device, rates in Mb/s. */
export function occasionOf(deviceId: string, reach: 'local' | 'internet', measured: Measured): Occasion {
  const id = `run-${(counter += 1)}`;
  const rate = (mbps: number | undefined) =>
    mbps === undefined ? null : { medianBps: mbps * 1e6, provenBps: mbps * 0.985e6, provenBy: id, spread: 0.02 };
  const inside = [`device:${deviceId}`, measured.link ?? `cable:${deviceId}`, 'hop'];
  return {
    ...{ runIds: [id], deviceId, reach, startedAtMs: measured.atMs ?? 1000, hour: measured.hour ?? 10 },
    path:
      reach === 'local'
        ? [...inside, 'peer:local:in']
        : [...inside, 'router', 'line:l', 'far:out', 'peer:internet:out'],
    ...{ down: rate(measured.down), up: rate(measured.up) },
    ...{ addedDownMs: measured.addedDown ?? null, addedUpMs: measured.addedUp ?? null },
    ...{ resentShare: measured.resentShare ?? null, flags: measured.flags ?? [] },
  };
}
