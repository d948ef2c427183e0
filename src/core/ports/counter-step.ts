import type { PortReading } from './port';

/** What a counter grew by, or why that is not known. */
export type CounterStep =
  | { readonly kind: 'grew'; readonly by: number }
  /** The machine was started anew meanwhile. */
  | { readonly kind: 'reset' }
  /** It says none. */
  | { readonly kind: 'none' }
  /** A 32-bit one that may have come round more than once. */
  | { readonly kind: 'may-have-wrapped' };

const WRAP = 2 ** 32;
/** Counters of 32 bits are believed only while they cannot have come round twice at the port's speed. */
const bytesAt = (speedMbps: number, ms: number) => speedMbps * 125 * ms;

/**
 * How far a counter of bytes went from one reading to the next (RFC 2863: counters come round, and begin anew when the machine
 * does). `speedMbps`: of the port.
 */
export function counterStep(
  before: number | null,
  after: number | null,
  [first, second]: readonly [PortReading, PortReading],
  speedMbps: number | null,
): CounterStep {
  if (before === null || after === null) return { kind: 'none' };
  const ms = second.atMs - first.atMs;
  if (first.upMs !== null && second.upMs !== null && second.upMs < first.upMs) return { kind: 'reset' };
  if (after >= before && (second.wide || speedMbps === null || bytesAt(speedMbps, ms) < WRAP))
    return { kind: 'grew', by: after - before };
  if (second.wide) return { kind: 'reset' };
  // It came round once, if the port cannot have moved more than that.
  if (speedMbps !== null && bytesAt(speedMbps, ms) < WRAP) return { kind: 'grew', by: after - before + WRAP };
  return { kind: 'may-have-wrapped' };
}

/** The same as a rate, bits per second; null: not known. */
export function counterBps(
  before: number | null,
  after: number | null,
  readings: readonly [PortReading, PortReading],
  speedMbps: number | null,
): number | null {
  const step = counterStep(before, after, readings, speedMbps);
  const ms = readings[1].atMs - readings[0].atMs;
  return step.kind === 'grew' && ms > 0 ? (8000 * step.by) / ms : null;
}
