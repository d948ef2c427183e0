import type { RateBins } from './rate-bins';

/** A stretch in which less than half of the steady rate arrived. Same clock as the bins, ms. */
export interface Dip {
  readonly fromMs: number;
  readonly toMs: number;
  /** Mean rate inside it, bits per second. */
  readonly bps: number;
}

const DIP_BELOW = 0.5;

/** Neighbouring bins below half of `steadyBps`, joined. Example: 100, 20, 40, 100 Mb/s gives one dip of two bins at 30. */
export function dipsIn({ binMs, atMs, bps }: RateBins, steadyBps: number): Dip[] {
  const dips: Dip[] = [];
  let low: number[] = [];
  const close = (endIndex: number) => {
    if (low.length === 0) return;
    const fromMs = atMs[endIndex - low.length]!;
    const mean = low.reduce((sum, value) => sum + value, 0) / low.length;
    dips.push({ fromMs, toMs: fromMs + low.length * binMs, bps: mean });
    low = [];
  };
  bps.forEach((value, index) => {
    if (value < DIP_BELOW * steadyBps) low.push(value);
    else close(index);
  });
  close(bps.length);
  return dips;
}
