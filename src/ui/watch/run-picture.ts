import type { ShownRun } from '@/services';
import { thin, xOf, type Context, type Frame, type LaneColors } from './lane-picture';

/** Narrower than this a run is two strokes: nothing of its seconds would be seen, pixels. */
const LEAST_WIDTH = 8;
const SECOND_MS = 1000;

export type DrawnRun = Pick<ShownRun, 'atMs' | 'downBps' | 'upBps' | 'seconds'>;

/** What the height of the runs stands for, bits per second. */
export function topOfRuns(runs: readonly DrawnRun[]): number {
  let top = 1;
  for (const { downBps, upBps, seconds } of runs)
    for (const bps of [downBps, upBps, ...(seconds?.downBps ?? []), ...(seconds?.upBps ?? [])])
      top = Math.max(top, bps ?? 0);
  return top;
}

/** What was moved each second as an area with its edge; seconds of which nothing is known are gaps. */
function paintSeconds(
  ctx: Context,
  frame: Frame,
  startMs: number,
  bps: readonly (number | null)[],
  color: string,
  y: (bps: number) => number,
): void {
  const width = xOf(frame, frame.fromMs + SECOND_MS);
  const xAt = (place: number) => xOf(frame, startMs + place * SECOND_MS);
  ctx.fillStyle = thin(color, 0.22);
  ctx.strokeStyle = color;
  ctx.lineWidth = 1.4;
  ctx.beginPath();
  let joins = false;
  bps.forEach((value, place) => {
    if (value === null) {
      joins = false;
      return;
    }
    const [x, top] = [xAt(place), y(value)];
    ctx.fillRect(x, top, width + 0.4, frame.height - top);
    if (joins) ctx.lineTo(x, top);
    else ctx.moveTo(x, top);
    ctx.lineTo(x + width, top);
    joins = true;
  });
  ctx.stroke();
}

/** Runs on their axis of time: second by second where there is room for it, else as upright strokes, down and up beside it. */
export function paintRuns(ctx: Context, frame: Frame, runs: readonly DrawnRun[], colors: LaneColors): void {
  const top = topOfRuns(runs);
  const y = (bps: number) => frame.height - (bps / top) * (frame.height - 6);
  ctx.clearRect(0, 0, frame.width, frame.height);
  for (const { atMs, downBps, upBps, seconds } of runs) {
    const lengthMs = (seconds?.downBps.length ?? 0) * SECOND_MS;
    // One that goes on has no figures yet that could be drawn instead.
    const goesOn = downBps === null && upBps === null;
    if (seconds !== null && (goesOn || xOf(frame, frame.fromMs + lengthMs) >= LEAST_WIDTH)) {
      paintSeconds(ctx, frame, atMs + seconds.fromMs, seconds.downBps, colors.down, y);
      paintSeconds(ctx, frame, atMs + seconds.fromMs, seconds.upBps, colors.up, y);
      continue;
    }
    for (const [bps, color, aside] of [
      [downBps, colors.down, 0],
      [upBps, colors.up, 2.5],
    ] as const) {
      if (bps === null) continue;
      ctx.fillStyle = color;
      ctx.fillRect(xOf(frame, atMs) + aside, y(bps), 2, frame.height - y(bps));
    }
  }
}
