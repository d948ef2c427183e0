'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { technician } from '@/app/role';
import { queueTurns, theConsole, withdrawTurn } from '@/services';
import { CONSOLE_FAULTS, problemOf, queueOrderSchema, type QueueOrder } from '@/wire';

/** Puts a round into the queue; answers with what is wrong, or null. */
export async function queueRoundAction(siteId: string, order: Omit<QueueOrder, 'siteId'>): Promise<string | null> {
  const allowed = await technician();
  if (!allowed.ok) return problemOf(CONSOLE_FAULTS, allowed.fault).detail;
  const parsed = queueOrderSchema.safeParse({ ...order, siteId });
  if (!parsed.success) return parsed.error.issues[0]?.message ?? 'The round cannot be read.';
  const queued = await queueTurns(theConsole(), allowed.value.name, parsed.data);
  revalidatePath('/', 'layout');
  return queued.ok ? null : problemOf(CONSOLE_FAULTS, queued.fault).detail;
}

export async function withdrawTurnAction(turnId: string): Promise<void> {
  if (!(await technician()).ok) redirect('/sign-in');
  await withdrawTurn(theConsole(), turnId);
  revalidatePath('/', 'layout');
}
