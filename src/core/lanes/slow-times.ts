import { median } from '../stats/percentile';
import type { LaneFigures, LaneRole } from './lane';
import type { Fault } from './whose-fault';

/** What a lane takes when all is well, ms: the middle of its hours, and how far its p95 usually lies above its median. */
export interface LaneUsual {
  readonly medianMs: number;
  readonly spreadMs: number;
}

/** What a lane said step by step. Shapes: `atMs` and `medianMs` [N]; null: nothing was answered. */
export interface SlowLane {
  readonly laneId: string;
  readonly name: string;
  readonly role: LaneRole;
  readonly stepMs: number;
  readonly atMs: readonly number[];
  readonly medianMs: readonly (number | null)[];
  /** Null: it is not known yet, and nothing is called slow. */
  readonly usual: LaneUsual | null;
}

/** A stretch in which answers came much later than usual. */
export interface SlowTime {
  /** The lanes that were slow. */
  readonly laneIds: readonly string[];
  readonly fault: Fault;
  readonly fromMs: number;
  readonly untilMs: number;
  /** Of the lane that it is told of, the one that was slowed most: its name, what it took then and takes usually, ms. */
  readonly name: string;
  readonly tookMs: number;
  readonly usualMs: number;
}

/** Fewer hours do not show what is usual. */
const LEAST_HOURS = 6;
/** Slow is later than usual by this, ms: less is felt by nobody, */
const LEAST_MORE_MS = 10;
/** and by this share of it, */
const LEAST_MORE_SHARE = 0.5;
/** and by this many times its usual spread, so that a lane over air is not slow all day. */
const LEAST_SPREADS = 2;
/** So many steps in a row: what lasts for one is told by the p95 of the picture. */
const LEAST_STEPS = 3;
/** Hours are long enough by themselves. */
const LONG_STEP_MS = 3600_000;
const OUTSIDE: readonly LaneRole[] = ['outside', 'far'];

/** What is usual, from the figures of hours; null: too few. */
export function laneUsual(hours: readonly Pick<LaneFigures, 'medianMs' | 'p95Ms'>[]): LaneUsual | null {
  const known = hours.flatMap(({ medianMs, p95Ms }) =>
    medianMs === null || p95Ms === null ? [] : [{ medianMs, p95Ms }],
  );
  if (known.length < LEAST_HOURS) return null;
  return {
    medianMs: median(known.map(({ medianMs }) => medianMs))!,
    spreadMs: median(known.map(({ medianMs, p95Ms }) => p95Ms - medianMs))!,
  };
}

/** From how many ms on a lane is slow. */
const slowFromMs = ({ medianMs, spreadMs }: LaneUsual) =>
  medianMs + Math.max(LEAST_MORE_MS, LEAST_MORE_SHARE * medianMs, LEAST_SPREADS * spreadMs);

interface Stretch {
  readonly lane: SlowLane;
  readonly fromMs: number;
  untilMs: number;
  steps: number;
}

/** Stretches in which a lane was slow step after step. One step that was not slow, or silent, does not end it. */
function stretchesOf(lane: SlowLane): Stretch[] {
  const { usual, stepMs, atMs, medianMs } = lane;
  if (usual === null) return [];
  const found: Stretch[] = [];
  atMs.forEach((at, place) => {
    const ms = medianMs[place] ?? null;
    if (ms === null || ms <= slowFromMs(usual)) return;
    const last = found.at(-1);
    if (last !== undefined && at - last.untilMs <= stepMs) {
      last.untilMs = at + stepMs;
      last.steps += 1;
    } else found.push({ lane, fromMs: at, untilMs: at + stepMs, steps: 1 });
  });
  return found.filter(({ steps }) => steps >= (stepMs >= LONG_STEP_MS ? 1 : LEAST_STEPS));
}

function isSameEvent(one: Stretch, other: Stretch): boolean {
  const overlap = Math.min(one.untilMs, other.untilMs) - Math.max(one.fromMs, other.fromMs);
  return overlap >= 0.5 * Math.max(one.untilMs - one.fromMs, other.untilMs - other.fromMs);
}

const within = ({ atMs, medianMs, stepMs }: SlowLane, fromMs: number, untilMs: number) =>
  atMs.flatMap((at, place) => {
    const ms = medianMs[place] ?? null;
    return ms !== null && at + stepMs > fromMs && at < untilMs ? [ms] : [];
  });

/** Whether most of what a lane said in a stretch was as usual; null: it said nothing, or its usual is not known. */
function wasWell(lane: SlowLane, fromMs: number, untilMs: number): boolean | null {
  const ms = median(within(lane, fromMs, untilMs));
  return ms === null || lane.usual === null ? null : ms <= slowFromMs(lane.usual);
}

/** The same reasoning as for silence: whoever answered as usual meanwhile says where it was not. */
function faultOf(slow: readonly SlowLane[], lanes: readonly SlowLane[], fromMs: number, untilMs: number): Fault {
  const states = (wanted: (role: LaneRole) => boolean) =>
    lanes
      .filter(({ role }) => wanted(role))
      .map((lane) => (slow.includes(lane) ? false : wasWell(lane, fromMs, untilMs)));
  const gateways = states((role) => role === 'gateway');
  if (gateways.includes(false)) return 'ours';
  if (!slow.some(({ role }) => OUTSIDE.includes(role))) return 'inside';
  if (!gateways.includes(true)) return 'unknown';
  const outside = states((role) => OUTSIDE.includes(role));
  if (outside.includes(true)) return 'theirs';
  return outside.filter((well) => well === false).length > 1 ? 'line' : 'line-or-theirs';
}

/** When answers came late over minutes and whose fault it was, by what several lanes of one agent took in the same time; the newest first. */
export function slowTimes(lanes: readonly SlowLane[]): SlowTime[] {
  const left = lanes.flatMap(stretchesOf).sort((a, b) => a.fromMs - b.fromMs);
  const found: SlowTime[] = [];
  while (left.length > 0) {
    const event = [left.shift()!];
    for (let place = 0; place < left.length;) {
      if (event.some((each) => isSameEvent(each, left[place]!))) event.push(...left.splice(place, 1));
      else place += 1;
    }
    const fromMs = Math.min(...event.map((each) => each.fromMs));
    const untilMs = Math.max(...event.map((each) => each.untilMs));
    const slow = event.map(({ lane }) => lane);
    const [most] = slow
      .map((lane) => ({ lane, tookMs: median(within(lane, fromMs, untilMs))!, usualMs: lane.usual!.medianMs }))
      .sort((a, b) => b.tookMs - b.usualMs - (a.tookMs - a.usualMs));
    found.push({
      ...{ fromMs, untilMs, laneIds: [...new Set(slow.map(({ laneId }) => laneId))].sort() },
      ...{ fault: faultOf(slow, lanes, fromMs, untilMs) },
      ...{ name: most!.lane.name, tookMs: most!.tookMs, usualMs: most!.usualMs },
    });
  }
  return found.sort((a, b) => b.fromMs - a.fromMs);
}
