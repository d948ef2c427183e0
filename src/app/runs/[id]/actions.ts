'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { saved } from '@/app/form-action';
import { technician } from '@/app/role';
import { saveRunNotes, shareRun, stopSharing, theConsole } from '@/services';
import type { FormState } from '@/ui/form/form-state';

export async function saveNotesAction(runId: string, _: FormState, form: FormData): Promise<FormState> {
  const state = await saved('run-notes', form, async ({ notes }) => {
    const allowed = await technician();
    return allowed.ok ? saveRunNotes(theConsole(), runId, notes) : allowed;
  });
  if (state.status === 'saved') revalidatePath(`/runs/${runId}`);
  return state;
}

async function changeSharing(runId: string, change: typeof shareRun | typeof stopSharing): Promise<void> {
  if (!(await technician()).ok) redirect(`/sign-in?to=/runs/${encodeURIComponent(runId)}`);
  await change(theConsole(), runId);
  revalidatePath(`/runs/${runId}`);
}

export async function shareRunAction(runId: string): Promise<void> {
  await changeSharing(runId, shareRun);
}

export async function stopSharingAction(runId: string): Promise<void> {
  await changeSharing(runId, stopSharing);
}
