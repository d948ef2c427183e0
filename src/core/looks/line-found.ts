import { counterBps } from '../ports/counter-step';
import type { PortReading } from '../ports/port';

/** The line's own counters, as the router tells them by UPnP IGD. */
export interface LineAsked {
  readonly what: 'line';
  /** Between both readings. */
  readonly seconds: number;
}

/** What had gone over the line at a moment, bytes, in 32 bits that come round. */
export interface LineReading {
  readonly atMs: number;
  readonly receivedBytes: number;
  readonly sentBytes: number;
}

export interface LineFound {
  readonly what: 'line';
  /** What the router calls itself. */
  readonly router: string;
  readonly address: string;
  /** Its address outside; null: it does not tell. */
  readonly outsideAddress: string | null;
  /** What it says that the line came up with, bits per second; null: it does not tell. */
  readonly linkDownBps: number | null;
  readonly linkUpBps: number | null;
  readonly before: LineReading;
  readonly after: LineReading;
}

/** Faster than this no line is taken to be where the router does not tell: so much fits into 32 bits over some ten seconds. */
const FASTEST_MBPS = 3000;

/** What goes over the line now, by everybody, bits per second; null: not known. */
export function lineRates({ before, after, linkDownBps, linkUpBps }: LineFound): {
  readonly downBps: number | null;
  readonly upBps: number | null;
} {
  const at = ({ atMs }: LineReading): PortReading => ({ atMs, upMs: null, wide: false, ports: [] });
  const readings = [at(before), at(after)] as const;
  const mbps = (bps: number | null) => (bps === null ? FASTEST_MBPS : bps / 1e6);
  return {
    downBps: counterBps(before.receivedBytes, after.receivedBytes, readings, mbps(linkDownBps)),
    upBps: counterBps(before.sentBytes, after.sentBytes, readings, mbps(linkUpBps)),
  };
}
