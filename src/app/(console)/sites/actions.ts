'use server';

import { revalidatePath } from 'next/cache';
import { cookies } from 'next/headers';
import { redirect } from 'next/navigation';
import { saved } from '@/app/form-action';
import { technician } from '@/app/role';
import { SITE_COOKIE } from '@/app/site-choice';
import { putBackOffice, removeDemoData, removeOffice, saveOffice, theConsole } from '@/services';
import type { FormState } from '@/ui/form/form-state';
import { CONSOLE_FAULTS, problemOf } from '@/wire';

const YEAR_S = 365 * 24 * 3600;

async function keepChoice(siteId: string): Promise<void> {
  (await cookies()).set(SITE_COOKIE, siteId, { httpOnly: true, sameSite: 'lax', path: '/', maxAge: YEAR_S });
}

async function onlyTechnician(): Promise<void> {
  if (!(await technician()).ok) redirect('/sign-in?to=/sites');
}

/** Looks at this office from now on. */
export async function chooseSiteAction(siteId: string): Promise<void> {
  await onlyTechnician();
  await keepChoice(siteId);
  revalidatePath('/', 'layout');
  redirect('/');
}

/** Makes a further office and goes to its set-up. */
export async function addOfficeAction(_: FormState, form: FormData): Promise<FormState> {
  const state = await saved('office', form, async ({ name }) => {
    const allowed = await technician();
    if (!allowed.ok) return allowed;
    const made = await saveOffice(theConsole(), null, name);
    if (made.ok) await keepChoice(made.value.id);
    return made;
  });
  if (state.status !== 'saved') return state;
  revalidatePath('/', 'layout');
  redirect('/set-up');
}

export async function removeOfficeAction(siteId: string): Promise<void> {
  await onlyTechnician();
  await removeOffice(theConsole(), siteId);
  revalidatePath('/', 'layout');
  redirect('/sites');
}

export async function removeDemoDataAction(): Promise<void> {
  await onlyTechnician();
  await removeDemoData(theConsole());
  revalidatePath('/', 'layout');
  redirect('/sites');
}

/** Puts an office back; answers with what stands in the way, or null. */
export async function putBackOfficeAction(siteId: string): Promise<string | null> {
  await onlyTechnician();
  const outcome = await putBackOffice(theConsole(), siteId);
  revalidatePath('/', 'layout');
  return outcome.ok ? null : problemOf(CONSOLE_FAULTS, outcome.fault).detail;
}
