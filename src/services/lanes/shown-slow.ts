import { isDelay, laneUsual, slowTimes, slowWords, type Fault, type LaneUsual } from '@/core';
import type { LaneStep, StoredLane } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import type { ShownBusyTime } from './shown-busy';
import type { ShownSteps } from './steps-of-span';

type Read = Pick<StoredLane, 'id' | 'name' | 'kind' | 'role'> & { readonly steps: ShownSteps };

interface Reader {
  readonly deviceId: string;
  readonly lanes: readonly Read[];
}

const HOUR_MS = 3600_000;
/** What is usual is what was usual in so much time before the end of what is shown. */
const USUAL_OVER_MS = 8 * 24 * HOUR_MS;
/** Days are too coarse for what lasts minutes. */
const LONGEST_STEP_MS = HOUR_MS;
const LONGEST_WITH_SOAKS_MS = 48 * HOUR_MS;
const MOST_SLOW = 40;
const MOST_OF_IT = 0.5;

interface Stretch {
  readonly fromMs: number;
  readonly untilMs: number;
}

/** A time at which answers came much later than usual. */
export interface ShownSlowTime {
  readonly deviceId: string;
  readonly laneIds: readonly string[];
  readonly fault: Fault;
  readonly fromMs: number;
  readonly untilMs: number;
  readonly sentence: string;
  /** What filled the line for half of it and more: others, by its router's counters, or a soak of ours. Null: neither is known. */
  readonly because: 'busy' | 'soak' | null;
}

async function usualOf(
  { store }: ConsoleContext,
  laneIds: readonly string[],
  untilMs: number,
): Promise<(laneId: string) => LaneUsual | null> {
  const hours = await store.lanes.steps(laneIds, HOUR_MS, untilMs - USUAL_OVER_MS, untilMs);
  const byLane = new Map<string, LaneStep[]>();
  for (const hour of hours) byLane.set(hour.laneId, [...(byLane.get(hour.laneId) ?? []), hour]);
  return (laneId) => laneUsual(byLane.get(laneId) ?? []);
}

/** When answers came late, as each machine saw it, the newest first; of single requests and of days nothing is told. */
export async function slowOf(
  context: ConsoleContext,
  machines: readonly Reader[],
  busy: readonly ShownBusyTime[],
  {
    siteId,
    fromMs: spanFromMs,
    untilMs,
  }: { readonly siteId: string; readonly fromMs: number; readonly untilMs: number },
): Promise<ShownSlowTime[]> {
  const delays = machines.map(({ deviceId, lanes }) => ({
    deviceId,
    lanes: lanes.filter(({ kind, steps }) => isDelay(kind) && steps.stepMs > 0 && steps.stepMs <= LONGEST_STEP_MS),
  }));
  const ids = delays.flatMap(({ lanes }) => lanes.map(({ id }) => id));
  if (ids.length === 0) return [];
  const [usual, long] = await Promise.all([
    usualOf(context, ids, untilMs),
    // By the hour four minutes are not seen.
    untilMs - spanFromMs <= LONGEST_WITH_SOAKS_MS ? context.store.watchedRuns.longOf(siteId, spanFromMs, untilMs) : [],
  ]);
  const soaks = long.map(({ atMs, endedAtMs }) => ({ fromMs: atMs, untilMs: endedAtMs ?? context.wallMs() }));
  const fills = (times: readonly Stretch[], { fromMs, untilMs: until }: Stretch) =>
    times.some(
      (time) => Math.min(time.untilMs, until) - Math.max(time.fromMs, fromMs) >= MOST_OF_IT * (until - fromMs),
    );
  const because = (slow: Stretch): ShownSlowTime['because'] =>
    fills(soaks, slow) ? 'soak' : fills(busy, slow) ? 'busy' : null;
  return delays
    .flatMap(({ deviceId, lanes }) =>
      slowTimes(
        lanes.map(({ id, name, role, steps }) => ({
          ...{ laneId: id, name, role, stepMs: steps.stepMs, usual: usual(id) },
          ...{ atMs: steps.atMs, medianMs: steps.medianMs },
        })),
      ).map((slow) => ({
        ...{ deviceId, laneIds: slow.laneIds, fault: slow.fault, fromMs: slow.fromMs, untilMs: slow.untilMs },
        ...{ sentence: slowWords(slow), because: because(slow) },
      })),
    )
    .sort((a, b) => b.fromMs - a.fromMs)
    .slice(0, MOST_SLOW);
}
