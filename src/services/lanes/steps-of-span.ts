import { figuresOfMinutes, unpackMinute, type LaneEcho } from '@/core';
import type { LaneStep, Store } from '@/store';
import type { ConsoleContext } from '../console/console-context';

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;
/** How coarse a span is shown: every request, minutes, hours, days. */
const SINGLE_UP_TO_MS = 25 * MINUTE_MS;
const MINUTES_UP_TO_MS = 40 * HOUR_MS;
const HOURS_UP_TO_MS = 70 * DAY_MS;

/** A stretch of a lane in columns, each as long as the others; ms, null: nothing was answered. */
export interface ShownSteps {
  /** Length of a step; 0: each is one request. */
  readonly stepMs: number;
  readonly atMs: readonly number[];
  readonly sent: readonly number[];
  readonly answered: readonly number[];
  /** Of those that were not answered, how many are known to be lost on which way; absent where none is. */
  readonly lostThere?: readonly number[];
  readonly lostBack?: readonly number[];
  readonly minMs: readonly (number | null)[];
  readonly medianMs: readonly (number | null)[];
  readonly p95Ms: readonly (number | null)[];
}

/** To the hundredth of a ms, as it was kept. */
const rounded = (ms: number | null) => (ms === null ? null : Math.round(ms * 100) / 100);

/** Most lanes cannot tell: for them nothing is sent. */
function waysOf(of: readonly LaneStep[]): Pick<ShownSteps, 'lostThere' | 'lostBack'> {
  if (!of.some(({ lostThere, lostBack }) => lostThere + lostBack > 0)) return {};
  return { lostThere: of.map(({ lostThere }) => lostThere), lostBack: of.map(({ lostBack }) => lostBack) };
}

function stepsOf(of: readonly LaneStep[], stepMs: number): ShownSteps {
  return {
    stepMs,
    atMs: of.map(({ fromMs }) => fromMs),
    sent: of.map(({ sent }) => sent),
    answered: of.map(({ answered }) => answered),
    ...waysOf(of),
    minMs: of.map(({ minMs }) => rounded(minMs)),
    medianMs: of.map(({ medianMs }) => rounded(medianMs)),
    p95Ms: of.map(({ p95Ms }) => rounded(p95Ms)),
  };
}

function singles(echoes: readonly LaneEcho[]): ShownSteps {
  const times = echoes.map(({ ms }) => ms);
  return {
    ...{ stepMs: 0, atMs: echoes.map(({ atMs }) => atMs), sent: echoes.map(() => 1) },
    answered: times.map((ms) => (ms === null ? 0 : 1)),
    ...{ minMs: times, medianMs: times, p95Ms: times },
  };
}

/**
 * The hours or days that are not summed up yet: the one that goes on and the one before it, from their requests. Of lanes
 * whose sums are further behind, what lies in between is not shown until it is summed up.
 */
async function newestSteps(
  store: Store,
  summed: ReadonlyMap<string, readonly LaneStep[]>,
  stepMs: number,
  untilMs: number,
): Promise<LaneStep[]> {
  const lastMs = untilMs - 1 - ((untilMs - 1) % stepMs);
  const behind = [...summed].flatMap(([laneId, steps]) => ((steps.at(-1)?.fromMs ?? 0) < lastMs ? [laneId] : []));
  return (await store.lanes.rawByStretch(behind, stepMs, lastMs - stepMs, untilMs))
    .filter(({ laneId, fromMs }) => (summed.get(laneId)?.at(-1)?.fromMs ?? 0) < fromMs)
    .map(({ laneId, fromMs, raws }) => ({ laneId, fromMs, ...figuresOfMinutes(raws) }));
}

/** The steps of lanes over a span, by the lane's id: as fine as can be drawn. */
export async function stepsByLane(
  { store }: ConsoleContext,
  laneIds: readonly string[],
  fromMs: number,
  untilMs: number,
): Promise<(laneId: string) => ShownSteps> {
  const spanMs = untilMs - fromMs;
  if (spanMs <= SINGLE_UP_TO_MS) {
    const minutes = await store.lanes.minutes(laneIds, fromMs - MINUTE_MS, untilMs);
    return (laneId) =>
      singles(
        minutes
          .filter((minute) => minute.laneId === laneId)
          .flatMap((minute) => unpackMinute(minute.fromMs, minute.raw))
          .filter(({ atMs }) => atMs >= fromMs && atMs < untilMs),
      );
  }
  const stepMs = spanMs <= MINUTES_UP_TO_MS ? MINUTE_MS : spanMs <= HOURS_UP_TO_MS ? HOUR_MS : DAY_MS;
  const steps = await store.lanes.steps(laneIds, stepMs, fromMs - stepMs, untilMs);
  const byLane = new Map(laneIds.map((laneId): [string, LaneStep[]] => [laneId, []]));
  for (const step of steps) byLane.get(step.laneId)?.push(step);
  if (stepMs !== MINUTE_MS)
    for (const step of await newestSteps(store, byLane, stepMs, untilMs)) byLane.get(step.laneId)?.push(step);
  return (laneId) => stepsOf(byLane.get(laneId) ?? [], stepMs);
}
