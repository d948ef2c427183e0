import { faultWords, type Fault } from '@/core';
import type { ConsoleContext } from '../console/console-context';

const MINUTE_MS = 60_000;
/** An outage of which nothing was heard for so long may be over: its machine cannot say. */
const HEARD_MS = 4 * MINUTE_MS;
const DAY_MS = 24 * 60 * MINUTE_MS;

/** Something that is silent now. */
export interface OpenOutage {
  readonly id: string;
  readonly fault: Fault;
  readonly fromMs: number;
  readonly sentence: string;
}

/** What is silent in an office now, as far as its machines can say. */
export async function openOutages({ store, wallMs, standing }: ConsoleContext, siteId: string): Promise<OpenOutage[]> {
  const nowMs = wallMs();
  const open = (await store.lanes.outages(siteId, nowMs - DAY_MS, nowMs + DAY_MS)).filter(
    ({ untilMs, deviceId }) => untilMs === null && standing.isPresent(deviceId),
  );
  if (open.length === 0) return [];
  const lanes = await store.lanes.ofSite(siteId);
  const newest = await store.lanes.newestMinute(open.flatMap(({ laneIds }) => laneIds));
  if (newest === null || nowMs - newest > HEARD_MS) return [];
  return open.map(({ id, fault, fromMs, laneIds, air }) => ({
    ...{ id, fault, fromMs },
    sentence: faultWords(
      fault,
      lanes.filter((lane) => laneIds.includes(lane.id)).map(({ name }) => name),
      air,
    ),
  }));
}
