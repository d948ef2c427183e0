import { counterBps, counterStep } from './counter-step';
import type { Port, PortsFound } from './port';

export interface PortRates {
  readonly port: Port;
  /** Into the port and out of it, bits per second; null: not known. */
  readonly inBps: number | null;
  readonly outBps: number | null;
  /** Damaged and dropped frames between the readings; null: not known. */
  readonly newErrors: number | null;
  readonly newDiscards: number | null;
}

export type PortFinding =
  | { readonly kind: 'half-duplex'; readonly port: Port }
  /** A port at 100 or 10 while most of the others are at a gigabit. */
  | { readonly kind: 'slow'; readonly port: Port; readonly usualMbps: number }
  | { readonly kind: 'errors'; readonly port: Port; readonly frames: number }
  | { readonly kind: 'full'; readonly port: Port; readonly way: 'in' | 'out'; readonly bps: number };

const sum = (...values: readonly (number | null)[]) =>
  values.every((value) => value === null) ? null : values.reduce<number>((all, value) => all + (value ?? 0), 0);

/** What each port moved between the two readings. */
export function portRates({ before, after }: PortsFound): PortRates[] {
  const readings = [before, after] as const;
  return after.ports.map((port) => {
    const was = before.ports.find(({ index }) => index === port.index);
    const grown = (of: (each: Port) => number | null) => {
      const step = counterStep(was === undefined ? null : of(was), of(port), readings, null);
      return step.kind === 'grew' ? step.by : null;
    };
    return {
      port,
      inBps: counterBps(was?.inBytes ?? null, port.inBytes, readings, port.speedMbps),
      outBps: counterBps(was?.outBytes ?? null, port.outBytes, readings, port.speedMbps),
      newErrors: sum(
        grown(({ inErrors }) => inErrors),
        grown(({ outErrors }) => outErrors),
      ),
      newDiscards: grown(({ discards }) => discards),
    };
  });
}

const GIGABIT = 1000;
/** So many of the ports that are up have to be at a gigabit for one below to be odd. */
const MOST_OF = 0.5;
/** From this share of its speed on a port is full. */
const FULL = 0.9;

/** Ports that something is wrong with. A loopback or a port that is not up says nothing. */
export function portFindings(found: PortsFound): PortFinding[] {
  const rates = portRates(found).filter(
    ({ port }) => port.up === true && port.speedMbps !== null && port.speedMbps > 0,
  );
  const fast = rates.filter(({ port }) => port.speedMbps! >= GIGABIT);
  const usual = rates.length > 0 && fast.length / rates.length > MOST_OF;
  return rates.flatMap(({ port, inBps, outBps, newErrors }): PortFinding[] => {
    const [least, bps] = [port.speedMbps! * 1e6, Math.max(inBps ?? 0, outBps ?? 0)];
    return [
      ...(port.duplex === 'half' ? [{ kind: 'half-duplex' as const, port }] : []),
      ...(usual && port.speedMbps! < GIGABIT ? [{ kind: 'slow' as const, port, usualMbps: GIGABIT }] : []),
      ...(newErrors !== null && newErrors > 0 ? [{ kind: 'errors' as const, port, frames: newErrors }] : []),
      ...(bps >= FULL * least
        ? [{ kind: 'full' as const, port, way: (inBps ?? 0) > (outBps ?? 0) ? ('in' as const) : ('out' as const), bps }]
        : []),
    ];
  });
}
