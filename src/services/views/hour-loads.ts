import { median, type HourLoads } from '@/core';
import type { StoredLane } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { hoursIn } from '../diagnosis';

const HOUR_MS = 3600_000;
/** Habits change: what was moved at an hour before that says nothing of now. */
const LOOKED_AT_MS = 28 * 24 * HOUR_MS;

/** What goes over an office's line by the hour of its day, by the counters of its router; null: nobody reads them. */
export async function hourLoadsOf(
  { store, wallMs }: ConsoleContext,
  siteId: string,
  timeZone: string | null,
): Promise<HourLoads | null> {
  const lanes = (await store.lanes.ofSite(siteId)).filter(({ role }) => role === 'line');
  if (lanes.length === 0) return null;
  const hourOf = hoursIn(timeZone);
  const steps = await store.lanes.steps(
    lanes.map(({ id }) => id),
    HOUR_MS,
    wallMs() - LOOKED_AT_MS,
    wallMs(),
  );
  const byHour = (kind: StoredLane['kind']) => {
    const ids = new Set(lanes.filter((lane) => lane.kind === kind).map(({ id }) => id));
    const hours = Array.from({ length: 24 }, (): number[] => []);
    for (const { laneId, fromMs, medianMs } of steps)
      if (ids.has(laneId) && medianMs !== null) hours[hourOf(fromMs)]!.push(medianMs);
    return hours.map((values) => median(values));
  };
  return { down: byHour('load-in'), up: byHour('load-out') };
}
