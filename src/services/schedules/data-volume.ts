import {
  ceilingOfLink,
  median,
  RUN_PROFILES,
  yardstickBps,
  yardstickOf,
  type PeerReach,
  type ScheduledProfile,
} from '@/core';
import type { Device, Line } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { crossingOf } from '../office/line-choice';
import { canLoadWeb, peerFor } from '../office/peer-choice';
import { monthBeganMs } from './zone-clock';

/** Of a run's time so much goes to each direction, as a rule. */
const DIRECTION_SHARE = 0.4;

/**
 * What a run will move, bytes: the median of the last like it; before there are such, what its yardstick would move in the
 * time that it fills each direction. Null: neither is known.
 */
export async function expectedBytes(
  context: ConsoleContext,
  { id, siteId, link }: Pick<Device, 'id' | 'siteId' | 'link'>,
  reach: PeerReach,
  profile: ScheduledProfile,
): Promise<number | null> {
  const lately = median(await context.store.schedules.movedLately(id, reach, profile));
  if (lately !== null) return lately;
  const peer = await peerFor(context, siteId, reach, await canLoadWeb(context, id));
  if (peer === null) return null;
  if (peer.web !== null) return peer.web.mostBytes;
  const { plan } = await crossingOf(context, siteId, peer, context.wallMs());
  const ceiling = ceilingOfLink(link, 4);
  const rates = (['down', 'up'] as const).map((direction) =>
    yardstickBps(yardstickOf({ reach, direction, plan, ceiling })),
  );
  const seconds = (RUN_PROFILES[profile].typicalMs / 1000) * DIRECTION_SHARE;
  const [down, up] = rates;
  return down === null || up === null || down === undefined || up === undefined ? null : ((down + up) / 8) * seconds;
}

/** What runs have moved over a line in this month of its office, and what they may. */
export interface LineBudget {
  readonly line: Pick<Line, 'id' | 'name'>;
  readonly movedBytes: number;
  /** Null: as much as they like. */
  readonly budgetBytes: number | null;
}

export async function lineBudget(
  { store, wallMs }: ConsoleContext,
  { id, name, siteId, budgetBytes }: Line,
): Promise<LineBudget> {
  const timeZone = (await store.sites.byId(siteId))?.timeZone ?? null;
  const movedBytes = await store.schedules.movedOverLine(id, monthBeganMs(timeZone, wallMs()));
  return { line: { id, name }, movedBytes, budgetBytes };
}
