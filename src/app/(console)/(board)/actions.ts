'use server';

import { redirect } from 'next/navigation';
import { act, COMMANDS, perform } from '@/app/commands';
import { refusalWords } from '@/app/form-action';
import { letBeSchema, queueOrderSchema, type QueueOrder } from '@/wire';

/** Puts a round into the queue; answers with what is wrong, or null. */
export async function queueRoundAction(siteId: string, order: Omit<QueueOrder, 'siteId'>): Promise<string | null> {
  const parsed = queueOrderSchema.safeParse({ ...order, siteId });
  if (!parsed.success) return parsed.error.issues[0]?.message ?? 'The round cannot be read.';
  return act(COMMANDS.queueTurns, parsed.data, '/');
}

export async function withdrawTurnAction(turnId: string): Promise<void> {
  await act(COMMANDS.withdrawTurn, { turnId }, '/');
}

/** Everything that waits leaves the queue. */
export async function withdrawAllAction(turnIds: readonly string[]): Promise<void> {
  for (const turnId of turnIds) await act(COMMANDS.withdrawTurn, { turnId }, '/');
}

export async function letBeAction(findingId: string, reason: string): Promise<string | null> {
  const parsed = letBeSchema.safeParse({ findingId, reason });
  if (!parsed.success) return parsed.error.issues[0]?.message ?? 'The reason cannot be read.';
  return act(COMMANDS.letFindingBe, parsed.data, '/');
}

export async function openAgainAction(findingId: string): Promise<string | null> {
  return act(COMMANDS.openFindingAgain, { findingId }, '/');
}

/** Opens a hunt from a finding, or goes on with the one that there is, and goes there. */
export async function huntFindingAction(findingId: string): Promise<string | null> {
  const outcome = await perform(COMMANDS.openHunt, { findingId });
  if (!outcome.ok) return refusalWords(outcome);
  redirect(`/hunt/${outcome.value.id}`);
}

export async function seeComplaintAction(complaintId: string): Promise<string | null> {
  return act(COMMANDS.seeComplaint, { complaintId }, '/');
}
