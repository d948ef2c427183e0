'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { act, COMMANDS, perform } from '@/app/commands';
import { issueWords, refusalWords, saved } from '@/app/form-action';
import type { FormState } from '@/ui/form/form-state';
import type { TypedTray } from '@/ui/side/side-rules';
import { changeComparisonSchema, comparisonSchema } from '@/wire';

const PLACE = '/side';

/** Keeps the trays and goes to where they are held side by side. */
export async function makeComparisonAction(
  siteId: string,
  name: string,
  trays: readonly TypedTray[],
): Promise<string | null> {
  const parsed = comparisonSchema.safeParse({ siteId, name, trays });
  if (!parsed.success) return issueWords(parsed.error);
  const outcome = await perform(COMMANDS.makeComparison, parsed.data);
  if (!outcome.ok) return refusalWords(outcome);
  redirect(`${PLACE}/${outcome.value.id}`);
}

export async function changeComparisonAction(
  id: string,
  name: string,
  trays: readonly TypedTray[],
): Promise<string | null> {
  const parsed = changeComparisonSchema.safeParse({ id, name, trays });
  return parsed.success ? act(COMMANDS.changeComparison, parsed.data, `${PLACE}/${id}`) : issueWords(parsed.error);
}

export async function removeComparisonAction(id: string): Promise<void> {
  await perform(COMMANDS.removeComparison, { id });
  revalidatePath('/', 'layout');
  redirect(PLACE);
}

export async function shareComparisonAction(id: string): Promise<void> {
  await act(COMMANDS.shareComparison, { id }, `${PLACE}/${id}`);
}

export async function unshareComparisonAction(id: string): Promise<void> {
  await act(COMMANDS.unshareComparison, { id }, `${PLACE}/${id}`);
}

/** Runs that were chosen in the ledger, for two trays. */
export async function compareChosenAction(
  siteId: string,
  a: readonly string[],
  b: readonly string[],
): Promise<string | null> {
  return makeComparisonAction(
    siteId,
    '',
    [a, b].map((runIds) => ({ name: '', query: '', runIds })),
  );
}

/** The runs before and after a swap, as they were held against each other. */
export async function compareSwapAction(
  siteId: string,
  before: readonly string[],
  after: readonly string[],
): Promise<void> {
  const side = (name: string, runIds: readonly string[]) => ({ name, query: '', runIds });
  await makeComparisonAction(siteId, '', [side('before', before), side('after', after)]);
}

/** Begins to measure two things turn and turn about, and goes to where one sees how far it is. */
export async function startAlternationAction(siteId: string, _: FormState, form: FormData): Promise<FormState> {
  const begun: string[] = [];
  const state = await saved('alternation', form, async (values) => {
    const outcome = await perform(COMMANDS.startAlternation, { siteId, form: values });
    if (outcome.ok) begun.push(outcome.value.id);
    return outcome;
  });
  const [id] = begun;
  if (id !== undefined) redirect(turnsOf(id));
  return state;
}

const turnsOf = (id: string) => `${PLACE}/turns/${id}`;

export async function sideIsReadyAction(id: string): Promise<string | null> {
  return act(COMMANDS.sideIsReady, { id }, turnsOf(id));
}

export async function goOnAction(id: string): Promise<string | null> {
  return act(COMMANDS.goOnWithAlternation, { id }, turnsOf(id));
}

export async function stopAlternationAction(id: string): Promise<string | null> {
  return act(COMMANDS.stopAlternation, { id }, turnsOf(id));
}
