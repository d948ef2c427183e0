import type { ClientSightings } from '@/core';
import type { MachineTraffic } from './machine-traffic';

/** Headers make of a payload byte at most so many bytes on the interface (66 of 1514, and some repeats). */
const HEADERS = 1.06;
/** Acknowledgements the other way, as a share of the payload. */
const ACKNOWLEDGEMENTS = 0.03;

/**
 * What other programs of this machine moved since the first load began: the interfaces' bytes less what the run itself
 * put on them, never below 0. Null where the interfaces cannot be read or nothing was loaded.
 */
export function otherTraffic(
  before: { readonly traffic: MachineTraffic | null; readonly atMs: number } | null,
  moved: MachineTraffic,
  after: MachineTraffic | null,
  nowMs: number,
): ClientSightings['otherTraffic'] {
  if (before === null || before.traffic === null || after === null) return null;
  const down = after.downBytes - before.traffic.downBytes;
  const up = after.upBytes - before.traffic.upBytes;
  return {
    downBytes: Math.max(0, Math.round(down - HEADERS * moved.downBytes - ACKNOWLEDGEMENTS * moved.upBytes)),
    upBytes: Math.max(0, Math.round(up - HEADERS * moved.upBytes - ACKNOWLEDGEMENTS * moved.downBytes)),
    overMs: nowMs - before.atMs,
  };
}
