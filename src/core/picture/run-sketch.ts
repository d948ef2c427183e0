import { mean } from '../stats/mean';
import type { RateBins } from '../measure/rate/rate-bins';
import type { StripData } from './strip-data';

/** A strip small enough for a row of the ledger: equal slices of the run; null where nothing was measured. */
export interface RunSketch {
  readonly downBps: readonly (number | null)[];
  readonly upBps: readonly (number | null)[];
  readonly delayMs: readonly (number | null)[];
}

export const SKETCH_SLICES = 32;

function sliced(atMs: readonly number[], values: readonly number[], durationMs: number): (number | null)[] {
  const slices = Array.from({ length: SKETCH_SLICES }, (): number[] => []);
  atMs.forEach((at, index) => {
    const slice = Math.min(SKETCH_SLICES - 1, Math.floor((at / durationMs) * SKETCH_SLICES));
    slices[Math.max(0, slice)]!.push(values[index]!);
  });
  return slices.map((slice) => {
    const value = mean(slice);
    return value === null ? null : Number(value.toPrecision(3));
  });
}

/** Averages a strip into slices; rates stay bits per second, delays ms. */
export function sketchOf(strip: StripData): RunSketch {
  const durationMs = Math.max(strip.durationMs, 1);
  const rates = (bins: RateBins | null) => sliced(bins?.atMs ?? [], bins?.bps ?? [], durationMs);
  return {
    downBps: rates(strip.down),
    upBps: rates(strip.up),
    delayMs: sliced(strip.probes.atMs, strip.probes.rttMs, durationMs),
  };
}
