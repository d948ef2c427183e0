import { faultWords, type Fault } from '@/core';
import type { ConsoleContext } from '../console/console-context';
import { outagesAsHeard } from './outages';

const DAY_MS = 24 * 3600_000;

/** Something that is silent now. */
export interface OpenOutage {
  readonly id: string;
  readonly fault: Fault;
  readonly fromMs: number;
  readonly sentence: string;
}

/** What is silent in an office now, as far as its machines can say. */
export async function openOutages(context: ConsoleContext, siteId: string): Promise<OpenOutage[]> {
  const { store, standing } = context;
  const nowMs = context.wallMs();
  const open = (await outagesAsHeard(context, siteId, nowMs - DAY_MS, nowMs + DAY_MS)).filter(
    ({ untilMs, deviceId }) => untilMs === null && standing.isPresent(deviceId),
  );
  if (open.length === 0) return [];
  const lanes = await store.lanes.ofSite(siteId);
  return open.map(({ id, fault, fromMs, laneIds, air }) => ({
    ...{ id, fault, fromMs },
    sentence: faultWords(
      fault,
      lanes.filter((lane) => laneIds.includes(lane.id)).map(({ name }) => name),
      air,
    ),
  }));
}
