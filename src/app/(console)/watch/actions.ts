'use server';

import { act, COMMANDS } from '@/app/commands';
import { issueWords } from '@/app/form-action';
import type { TypedLane } from '@/ui/watch/lane-form';
import type { PeerReach } from '@/core';
import { laneFormSchema, newMarkSchema, queueOrderSchema } from '@/wire';

const HERE = '/watch';

export async function addLaneAction(typed: TypedLane): Promise<string | null> {
  const lane = laneFormSchema.safeParse(typed);
  return lane.success ? act(COMMANDS.addLane, lane.data, HERE) : issueWords(lane.error);
}

export async function endLaneAction(id: string): Promise<string | null> {
  return act(COMMANDS.endLane, { id }, HERE);
}

export async function beginMarkAction(siteId: string, label: string): Promise<string | null> {
  const mark = newMarkSchema.safeParse({ label });
  return mark.success ? act(COMMANDS.beginMark, { siteId, label: mark.data.label }, HERE) : issueWords(mark.error);
}

/** A device that stands by measures for minutes, as soon as its turn has come. */
export async function askSoakAction(siteId: string, deviceId: string, reach: PeerReach): Promise<string | null> {
  const once = { times: 1, profile: 'soak', together: false } as const;
  const order = queueOrderSchema.safeParse({ siteId, deviceIds: [deviceId], reaches: [reach], ...once });
  return order.success ? act(COMMANDS.queueTurns, order.data, HERE) : issueWords(order.error);
}

export async function endMarkAction(id: string): Promise<string | null> {
  return act(COMMANDS.endMark, { id }, HERE);
}

export async function removeMarkAction(id: string): Promise<string | null> {
  return act(COMMANDS.removeMark, { id }, HERE);
}
