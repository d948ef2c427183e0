import type { RunSketch } from '@/core';

const WIDTH = 128;
const AXIS = 13;
const REACH = 12;
const LANE_TOP = 28;
const HEIGHT = 36;

const GAP = 0.7;
/** A bar that is too low to be seen is drawn as high as this. */
const LOWEST = 0.6;

/** Bars as upright strokes from the axis, each as wide as its share of the strip. */
function Bars({ values, up, colour }: { values: readonly (number | null)[]; up: boolean; colour: string }) {
  const each = WIDTH / values.length;
  const top = topOf(values, 1);
  const path = values
    .map((value, index) => {
      if (value === null) return '';
      const height = Math.max(LOWEST, (value / top) * REACH).toFixed(1);
      return `M${((index + 0.5) * each).toFixed(1)} ${AXIS}v${up ? '-' : ''}${height}`;
    })
    .join('');
  return <path d={path} stroke={colour} strokeWidth={(each - GAP).toFixed(2)} />;
}

function topOf(values: readonly (number | null)[], least: number): number {
  return Math.max(least, ...values.filter((value) => value !== null));
}

/** A strip for a row of the ledger: the same roles and directions, no words. */
export function StripSketch({ sketch }: { readonly sketch: RunSketch }) {
  const topDelay = topOf(sketch.delayMs, 20);
  const dots = sketch.delayMs
    .map((value, index) =>
      value === null
        ? ''
        : `M${(((index + 0.5) * WIDTH) / sketch.delayMs.length).toFixed(1)} ${(HEIGHT - 1 - (value / topDelay) * (HEIGHT - LANE_TOP)).toFixed(1)}h0`,
    )
    .join('');
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="block h-9 w-32" aria-hidden="true">
      <Bars values={sketch.downBps} up colour="var(--down)" />
      <Bars values={sketch.upBps} up={false} colour="var(--up)" />
      <path d={`M0 ${AXIS}H${WIDTH}`} stroke="var(--ink)" strokeWidth="0.6" />
      <path d={dots} stroke="var(--delay)" strokeWidth="1.7" strokeLinecap="round" />
    </svg>
  );
}
