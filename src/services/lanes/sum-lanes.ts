import { figuresOfMinutes, type LaneMinute } from '@/core';
import type { ConsoleContext } from '../console/console-context';

const HOUR_MS = 3600_000;
const DAY_MS = 24 * HOUR_MS;
/** Stretches that are summed, with how long after their end: what comes late from an agent that was cut off is in by then. */
const SUMMED = [
  { stepMs: HOUR_MS, afterMs: HOUR_MS },
  { stepMs: DAY_MS, afterMs: 3 * HOUR_MS },
] as const;
/** So many at a time: nobody waits for the database meanwhile. */
const AT_ONCE = 24;
/** Minutes with their requests stay so long; hours and days for ever. */
export const MINUTES_STAY_DAYS = 35;

async function sumUp({ store }: ConsoleContext, stepMs: number, laneId: string, fromMs: number): Promise<void> {
  const minutes = await store.lanes.minutes([laneId], fromMs, fromMs + stepMs);
  await store.lanes.addSums(stepMs, [{ laneId, fromMs, ...figuresOfMinutes(minutes.map(({ raw }) => raw)) }]);
}

/** Minutes that came after their hour or day was summed up belong to it too. Older than the minutes that stay, it stays as it is. */
export async function sumAnew(context: ConsoleContext, minutes: readonly LaneMinute[]): Promise<void> {
  const nowMs = context.wallMs();
  const goneMs = nowMs - MINUTES_STAY_DAYS * DAY_MS;
  for (const { stepMs } of SUMMED) {
    const stretches = new Map(
      minutes.map(({ laneId, fromMs }) => {
        const beginMs = fromMs - (fromMs % stepMs);
        return [`${laneId} ${beginMs}`, { laneId, beginMs }];
      }),
    );
    for (const { laneId, beginMs } of stretches.values()) {
      // What goes on has no sum yet.
      if (beginMs <= goneMs || beginMs + stepMs > nowMs) continue;
      if (await context.store.lanes.isSummed(laneId, stepMs, beginMs)) await sumUp(context, stepMs, laneId, beginMs);
    }
  }
}

/** Sums up hours and days of lanes from their requests, and lets old minutes go. */
export async function sumLanes(context: ConsoleContext): Promise<void> {
  const { lanes } = context.store;
  const nowMs = context.wallMs();
  for (const { stepMs, afterMs } of SUMMED) {
    const untilMs = Math.floor((nowMs - afterMs) / stepMs) * stepMs;
    for (const { laneId, fromMs } of await lanes.unsummed(stepMs, untilMs, AT_ONCE))
      await sumUp(context, stepMs, laneId, fromMs);
  }
  await lanes.removeMinutesBefore(nowMs - MINUTES_STAY_DAYS * DAY_MS);
}
