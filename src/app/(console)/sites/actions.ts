'use server';

import { revalidatePath } from 'next/cache';
import { cookies } from 'next/headers';
import { redirect } from 'next/navigation';
import { act, actorHere, COMMANDS, perform } from '@/app/commands';
import { saved } from '@/app/form-action';
import { SITE_COOKIE } from '@/app/site-choice';
import type { FormState } from '@/ui/form/form-state';

const HERE = '/sites';
const YEAR_S = 365 * 24 * 3600;

async function keepChoice(siteId: string): Promise<void> {
  (await cookies()).set(SITE_COOKIE, siteId, { httpOnly: true, sameSite: 'lax', path: '/', maxAge: YEAR_S });
}

/** Looks at this office from now on. */
export async function chooseSiteAction(siteId: string): Promise<void> {
  if (!(await actorHere()).ok) redirect(`/sign-in?to=${HERE}`);
  await keepChoice(siteId);
  revalidatePath('/', 'layout');
  redirect('/');
}

/** Makes a further office and goes to its set-up. */
export async function addOfficeAction(_: FormState, form: FormData): Promise<FormState> {
  const state = await saved('office', form, async ({ name }) => {
    const made = await perform(COMMANDS.saveOffice, { siteId: null, name });
    if (made.ok) await keepChoice(made.value.id);
    return made;
  });
  if (state.status !== 'saved') return state;
  revalidatePath('/', 'layout');
  redirect('/set-up');
}

export async function removeOfficeAction(siteId: string): Promise<void> {
  await act(COMMANDS.removeOffice, { siteId }, HERE);
  redirect(HERE);
}

export async function removeDemoDataAction(): Promise<void> {
  await act(COMMANDS.removeDemoData, null, HERE);
  redirect(HERE);
}

/** Puts an office back; answers with what stands in the way, or null. */
export async function putBackOfficeAction(siteId: string): Promise<string | null> {
  return act(COMMANDS.putBackOffice, { siteId }, HERE);
}
