'use server';

import { act, COMMANDS } from '@/app/commands';
import { queueOrderSchema, type QueueOrder } from '@/wire';

/** Puts a round into the queue; answers with what is wrong, or null. */
export async function queueRoundAction(siteId: string, order: Omit<QueueOrder, 'siteId'>): Promise<string | null> {
  const parsed = queueOrderSchema.safeParse({ ...order, siteId });
  if (!parsed.success) return parsed.error.issues[0]?.message ?? 'The round cannot be read.';
  return act(COMMANDS.queueTurns, parsed.data, '/');
}

export async function withdrawTurnAction(turnId: string): Promise<void> {
  await act(COMMANDS.withdrawTurn, { turnId }, '/');
}
