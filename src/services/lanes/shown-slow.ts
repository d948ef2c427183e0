import { isLoad, laneUsual, slowTimes, slowWords, type Fault, type LaneUsual } from '@/core';
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
const MOST_SLOW = 40;

/** A time at which answers came much later than usual. */
export interface ShownSlowTime {
  readonly deviceId: string;
  readonly laneIds: readonly string[];
  readonly fault: Fault;
  readonly fromMs: number;
  readonly untilMs: number;
  readonly sentence: string;
  /** For half of it and more the line was busy by its router's counters: see there. */
  readonly busy: boolean;
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
  untilMs: number,
): Promise<ShownSlowTime[]> {
  const delays = machines.map(({ deviceId, lanes }) => ({
    deviceId,
    lanes: lanes.filter(({ kind, steps }) => !isLoad(kind) && steps.stepMs > 0 && steps.stepMs <= LONGEST_STEP_MS),
  }));
  const ids = delays.flatMap(({ lanes }) => lanes.map(({ id }) => id));
  if (ids.length === 0) return [];
  const usual = await usualOf(context, ids, untilMs);
  const wasBusy = (from: number, until: number) => {
    const overlaps = busy.map(({ fromMs, untilMs: to }) => Math.max(0, Math.min(to, until) - Math.max(fromMs, from)));
    return Math.max(0, ...overlaps) >= 0.5 * (until - from);
  };
  return delays
    .flatMap(({ deviceId, lanes }) =>
      slowTimes(
        lanes.map(({ id, name, role, steps }) => ({
          ...{ laneId: id, name, role, stepMs: steps.stepMs, usual: usual(id) },
          ...{ atMs: steps.atMs, medianMs: steps.medianMs },
        })),
      ).map((slow) => ({
        ...{ deviceId, laneIds: slow.laneIds, fault: slow.fault, fromMs: slow.fromMs, untilMs: slow.untilMs },
        ...{ sentence: slowWords(slow), busy: wasBusy(slow.fromMs, slow.untilMs) },
      })),
    )
    .sort((a, b) => b.fromMs - a.fromMs)
    .slice(0, MOST_SLOW);
}
