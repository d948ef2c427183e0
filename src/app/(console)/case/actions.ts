'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { act, actOnForm, COMMANDS, perform } from '@/app/commands';
import { saved, textOf } from '@/app/form-action';
import type { FormState } from '@/ui/form/form-state';

const PLACE = '/case';

/** Opens a case and goes to it. */
export async function openCaseAction(_: FormState, form: FormData): Promise<FormState> {
  let opened: string | null = null;
  const state = await saved('case', form, async (values) => {
    const outcome = await perform(COMMANDS.openCase, { siteId: textOf(form, 'siteId') ?? '', form: values });
    if (outcome.ok) opened = outcome.value.id;
    return outcome;
  });
  if (opened !== null) redirect(`${PLACE}/${opened as string}`);
  return state;
}

export async function changeCaseAction(id: string, _: FormState, form: FormData): Promise<FormState> {
  return actOnForm('case', form, COMMANDS.changeCase, (values) => ({ id, form: values }));
}

export async function closeCaseAction(id: string, closed: boolean): Promise<void> {
  await act(COMMANDS.closeCase, { id, closed }, `${PLACE}/${id}`);
}

export async function letMeasureAction(id: string, deviceId: string | null): Promise<string | null> {
  return act(COMMANDS.letMeasure, { id, deviceId }, `${PLACE}/${id}`);
}

export async function removeCaseAction(id: string): Promise<void> {
  await perform(COMMANDS.removeCase, { id });
  revalidatePath('/', 'layout');
  redirect(PLACE);
}
