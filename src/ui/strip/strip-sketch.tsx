import type { RunSketch } from '@/core';

const WIDTH = 128;
const AXIS = 13;
const REACH = 12;
const LANE_TOP = 28;
const HEIGHT = 36;

function bars(values: readonly (number | null)[], top: number, sign: 1 | -1): string {
  const each = WIDTH / values.length;
  return values
    .map((value, index) => {
      if (value === null) return '';
      const height = Math.max(0.6, (value / top) * REACH);
      return `M${(index * each).toFixed(1)} ${AXIS}v${(sign * height).toFixed(1)}h${(each - 0.7).toFixed(1)}V${AXIS}z`;
    })
    .join('');
}

/** A strip for a row of the ledger: the same roles and directions, no words. */
export function StripSketch({ sketch }: { readonly sketch: RunSketch }) {
  const numbers = (values: readonly (number | null)[]) => values.filter((value) => value !== null);
  const top = (values: readonly (number | null)[]) => Math.max(1, ...numbers(values));
  const topDelay = Math.max(20, ...numbers(sketch.delayMs));
  const dots = sketch.delayMs
    .map((value, index) =>
      value === null
        ? ''
        : `M${(((index + 0.5) * WIDTH) / sketch.delayMs.length).toFixed(1)} ${(HEIGHT - 1 - (value / topDelay) * (HEIGHT - LANE_TOP)).toFixed(1)}h0`,
    )
    .join('');
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="block h-9 w-32" aria-hidden="true">
      <path d={bars(sketch.downBps, top(sketch.downBps), -1)} fill="var(--down)" />
      <path d={bars(sketch.upBps, top(sketch.upBps), 1)} fill="var(--up)" />
      <path d={`M0 ${AXIS}H${WIDTH}`} stroke="var(--ink)" strokeWidth="0.6" />
      <path d={dots} stroke="var(--delay)" strokeWidth="1.7" strokeLinecap="round" />
    </svg>
  );
}
