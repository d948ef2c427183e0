'use server';

import { act, actOnForm, COMMANDS } from '@/app/commands';
import type { FormState } from '@/ui/form/form-state';

const pageOf = (runId: string) => `/runs/${encodeURIComponent(runId)}`;

export async function saveNotesAction(runId: string, _: FormState, form: FormData): Promise<FormState> {
  return actOnForm('run-notes', form, COMMANDS.saveRunNotes, ({ notes }) => ({ runId, notes }));
}

export async function shareRunAction(runId: string): Promise<void> {
  await act(COMMANDS.shareRun, { runId }, pageOf(runId));
}

export async function stopSharingAction(runId: string): Promise<void> {
  await act(COMMANDS.stopSharing, { runId }, pageOf(runId));
}
