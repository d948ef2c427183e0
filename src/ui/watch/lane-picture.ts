import { isLoad, type LaneKind } from '@/core';
import type { ShownLane, ShownSteps } from '@/services';

export const LANE_HEIGHT = 64;
/** So many unanswered requests in a row are a silence, fewer are lost packets. */
const SILENT = 3;

export interface LaneColors {
  readonly ink: string;
  readonly quiet: string;
  readonly hairline: string;
  readonly delay: string;
  readonly down: string;
  readonly up: string;
  readonly starved: string;
  readonly thin: string;
}
const NAMES = ['ink', 'quiet', 'hairline', 'delay', 'down', 'up', 'starved', 'thin'] as const;

/** Colours of the paper as the page has them now. */
export function laneColors(): LaneColors {
  const style = getComputedStyle(document.documentElement);
  return Object.fromEntries(
    NAMES.map((name) => [name, style.getPropertyValue(`--${name}`).trim()]),
  ) as unknown as LaneColors;
}

/** Where a picture lies: pixels of the page, and the time that they stand for. */
export interface Frame {
  readonly width: number;
  readonly height: number;
  readonly fromMs: number;
  readonly untilMs: number;
}
export const xOf = ({ width, fromMs, untilMs }: Frame, atMs: number) => ((atMs - fromMs) / (untilMs - fromMs)) * width;

const TOPS = [2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000];

/** What the height of a lane stands for: a round number of ms above what is usual in it, so that one late packet does not flatten the rest. */
export function topOf({ stepMs, p95Ms, medianMs }: ShownSteps): number {
  const values = (stepMs === 0 ? medianMs : p95Ms).filter((ms) => ms !== null).sort((a, b) => a - b);
  const high = values[Math.floor(0.98 * (values.length - 1))] ?? 0;
  return TOPS.find((top) => top >= 1.15 * high) ?? Math.ceil(high);
}

export const thin = (hex: string, share: number) =>
  `${hex}${Math.round(share * 255)
    .toString(16)
    .padStart(2, '0')}`;

export type Context = CanvasRenderingContext2D;

function paintBand(
  ctx: Context,
  frame: Frame,
  { atMs, stepMs, minMs, p95Ms }: ShownSteps,
  y: (ms: number) => number,
): void {
  const width = Math.max(1, xOf(frame, frame.fromMs + stepMs));
  atMs.forEach((at, place) => {
    const [low, high] = [minMs[place], p95Ms[place]];
    if (low === null || low === undefined || high === null || high === undefined) return;
    ctx.fillRect(xOf(frame, at), y(high), width + 0.4, Math.max(1, y(low) - y(high)));
  });
}

/** What goes over a port lies on the ground: the median of each step as an area, and thin what it reached. */
function paintGround(
  ctx: Context,
  frame: Frame,
  { atMs, stepMs, medianMs, p95Ms }: ShownSteps,
  everyMs: number,
  y: (value: number) => number,
): void {
  const width = Math.max(1, xOf(frame, frame.fromMs + Math.max(stepMs, everyMs)));
  atMs.forEach((at, place) => {
    for (const value of [medianMs[place], p95Ms[place]]) {
      if (value === null || value === undefined) return;
      ctx.fillRect(xOf(frame, at), y(value), width + 0.4, frame.height - y(value));
    }
  });
}

/** The median from step to step; what lies further apart than usual is not joined. */
function paintLine(
  ctx: Context,
  frame: Frame,
  { atMs, stepMs, medianMs }: ShownSteps,
  everyMs: number,
  y: (ms: number) => number,
): void {
  const apartMs = 1.6 * Math.max(stepMs, everyMs) + 200;
  let before: number | null = null;
  ctx.beginPath();
  atMs.forEach((at, place) => {
    const ms = medianMs[place];
    if (ms === null || ms === undefined) {
      before = null;
      return;
    }
    const x = xOf(frame, at + stepMs / 2);
    if (before === null || at - before > apartMs) {
      ctx.moveTo(x - 0.5, y(ms));
      ctx.lineTo(x + 0.5, y(ms));
    } else ctx.lineTo(x, y(ms));
    before = at;
  });
  ctx.stroke();
}

/** A lost packet now and then is nothing to look at from across the room. */
const FEW = 0.05;

/** Silence over the whole height; lost packets from the ground, as high as their share. */
function paintLost(
  ctx: Context,
  frame: Frame,
  { atMs, stepMs, sent, answered }: ShownSteps,
  everyMs: number,
  colors: LaneColors,
): void {
  const { height } = frame;
  const strong = colors.starved;
  const lengthMs = stepMs === 0 ? everyMs : stepMs;
  const width = Math.max(1.5, xOf(frame, frame.fromMs + lengthMs));
  let run = 0;
  atMs.forEach((at, place) => {
    const lost = sent[place]! - answered[place]!;
    run = lost === sent[place] ? run + 1 : 0;
    if (lost === 0) return;
    const x = xOf(frame, at);
    const isSilence = stepMs === 0 ? run >= SILENT : answered[place] === 0;
    if (isSilence) {
      const from = stepMs === 0 ? xOf(frame, atMs[place - (run - 1)]!) : x;
      ctx.fillStyle = strong;
      ctx.fillRect(from, 0, x + width - from, height);
    } else {
      const share = lost / sent[place]!;
      const drawn = stepMs === 0 ? 0.3 : Math.max(0.05, share);
      ctx.fillStyle = stepMs > 0 && share < FEW ? thin(strong, 0.45) : strong;
      ctx.fillRect(x, height * (1 - drawn), width, height * drawn);
    }
  });
}

/** The colour of what a lane tells: a delay, or what goes one way. */
const COLOURS: Readonly<Partial<Record<LaneKind, 'down' | 'up'>>> = { 'load-in': 'down', 'load-out': 'up' };

/** A signal is kept as dB below 1 mW; it is drawn with the strong ones on top, from -100 dBm on the ground to -30. */
const FAINTEST = 100;
const LOUDEST = 30;

function asHeard(steps: ShownSteps): ShownSteps {
  const heard = (values: ShownSteps['medianMs']) => values.map((value) => (value === null ? null : FAINTEST - value));
  return { ...steps, medianMs: heard(steps.medianMs), minMs: heard(steps.p95Ms), p95Ms: heard(steps.minMs) };
}

/** What the top of a lane stands for, in words. */
export function topWords({ steps, kind }: Pick<ShownLane, 'steps' | 'kind'>): string {
  if (kind === 'signal') return `-${LOUDEST} dBm`;
  const unit = kind === 'retries' ? '%' : isLoad(kind) || kind === 'link-rate' ? 'Mb/s' : 'ms';
  return `${topOf(steps)} ${unit}`;
}

/** Draws one lane. Returns what its height stands for, in its own unit. */
export function paintLane(
  ctx: Context,
  frame: Frame,
  { steps: told, everyMs, kind }: Pick<ShownLane, 'steps' | 'everyMs' | 'kind'>,
  colors: LaneColors,
): number {
  const colour = colors[COLOURS[kind] ?? 'delay'];
  const steps = kind === 'signal' ? asHeard(told) : told;
  const top = kind === 'signal' ? FAINTEST - LOUDEST : topOf(steps);
  const y = (ms: number) => frame.height - 2 - (Math.min(Math.max(0, ms), top) / top) * (frame.height - 6);
  ctx.clearRect(0, 0, frame.width, frame.height);
  ctx.fillStyle = thin(colour, 0.22);
  if (isLoad(kind)) paintGround(ctx, frame, steps, everyMs, y);
  else if (steps.stepMs > 0) paintBand(ctx, frame, steps, y);
  ctx.strokeStyle = colour;
  ctx.lineWidth = 1.4;
  ctx.lineJoin = 'round';
  paintLine(ctx, frame, steps, everyMs, y);
  // A device that does not tell its counters is no silence.
  if (!isLoad(kind)) paintLost(ctx, frame, steps, everyMs, colors);
  return top;
}
