import type { RateBins, StripData } from '@/core';

/** Yardsticks drawn as dashed lines, bits per second. */
export interface StripYardsticks {
  readonly downBps: number | null;
  readonly upBps: number | null;
}

/** Where things stand on the strip, in picture units. Download grows up from `axisY`, upload down from it. */
export interface StripScale {
  readonly width: number;
  readonly height: number;
  readonly axisY: number;
  readonly laneTop: number;
  readonly laneBottom: number;
  readonly topBps: { readonly down: number; readonly up: number };
  readonly topMs: number;
  readonly x: (atMs: number) => number;
  readonly downY: (bps: number) => number;
  readonly upY: (bps: number) => number;
  readonly delayY: (ms: number) => number;
}

const HEAD = 22;
const GAP = 14;
const LANE = 74;
const LEAST_SHARE = 0.34;
const LEAST_SPAN_MS = 12_000;
const HEADROOM = 1.1;

function topOf(bins: RateBins | null, yardstickBps: number | null): number {
  return Math.max(1e6, (yardstickBps ?? 0) * HEADROOM, ...(bins?.bps ?? []).map((bps) => bps * 1.03));
}

/** A top for the delay lane on which the idle line is still seen: 20, 30, 50, 100, 150, 200 … ms. */
function niceTop(ms: number): number {
  const magnitude = 10 ** Math.floor(Math.log10(Math.max(ms, 1)));
  return Math.max(20, [1, 1.5, 2, 3, 5, 7, 10].map((step) => step * magnitude).find((top) => top >= ms) ?? ms);
}

/** Shares the height between the directions by what they carry, neither below a third. */
export function scaleStrip(data: StripData, yardsticks: StripYardsticks, width: number, height: number): StripScale {
  const topBps = { down: topOf(data.down, yardsticks.downBps), up: topOf(data.up, yardsticks.upBps) };
  const room = height - HEAD - GAP - LANE - 14;
  const share = Math.min(1 - LEAST_SHARE, Math.max(LEAST_SHARE, topBps.down / (topBps.down + topBps.up)));
  const axisY = HEAD + room * share;
  const laneTop = HEAD + room + GAP;
  const laneBottom = laneTop + LANE;
  const topMs = niceTop(Math.max(0, ...data.probes.rttMs));
  const spanMs = Math.max(LEAST_SPAN_MS, data.durationMs);
  return {
    width,
    height,
    axisY,
    laneTop,
    laneBottom,
    topBps,
    topMs,
    x: (atMs) => Math.round((atMs / spanMs) * width * 10) / 10,
    downY: (bps) => axisY - (bps / topBps.down) * room * share,
    upY: (bps) => axisY + (bps / topBps.up) * room * (1 - share),
    delayY: (ms) => laneBottom - (Math.min(ms, topMs) / topMs) * LANE,
  };
}

/** The area between the axis and the rates, as SVG path data; empty for no bins. */
export function areaPath(bins: RateBins | null, scale: StripScale, y: (bps: number) => number): string {
  if (bins === null || bins.bps.length === 0) return '';
  const first = scale.x(bins.atMs[0]!);
  const steps = bins.bps.map((bps, index) => {
    const to = scale.x(bins.atMs[index]! + bins.binMs);
    return `V${y(bps).toFixed(1)}H${to}`;
  });
  return `M${first} ${scale.axisY}${steps.join('')}V${scale.axisY}Z`;
}

/** All probes as one path of points: a stroke with round ends makes each a dot. */
export function dotsPath({ probes }: StripData, scale: StripScale): string {
  return probes.atMs.map((at, index) => `M${scale.x(at)} ${scale.delayY(probes.rttMs[index]!).toFixed(1)}h0`).join('');
}
