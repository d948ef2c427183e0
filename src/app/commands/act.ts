import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import { refusalWords, saved } from '@/app/form-action';
import type { FormState } from '@/ui/form/form-state';
import type { ConsoleFaultCode, FormName, FormValues, Outcome } from '@/wire';
import type { Command } from './command';
import { perform } from './perform';

/** Whoever is not signed in any more is led to the sign-in, and back. */
function signInAgain({ ok, ...outcome }: Outcome<unknown, ConsoleFaultCode>, returnTo: string): void {
  if (!ok && 'fault' in outcome && outcome.fault.code === 'not-signed-in')
    redirect(`/sign-in?to=${encodeURIComponent(returnTo)}`);
}

/** Carries a command out from a page; what it changed is drawn anew. Answers with what stands in the way, or null. */
export async function act<Input, Value>(
  command: Command<Input, Value>,
  input: Input,
  returnTo: string,
): Promise<string | null> {
  const outcome = await perform(command, input);
  signInAgain(outcome, returnTo);
  revalidatePath('/', 'layout');
  return refusalWords(outcome);
}

/** The same for a form: what it holds is checked first, and comes back where something is wrong. */
export async function actOnForm<Name extends FormName, Input, Value>(
  name: Name,
  form: FormData,
  command: Command<Input, Value>,
  inputOf: (values: FormValues<Name>) => Input,
): Promise<FormState> {
  const state = await saved(name, form, (values) => perform(command, inputOf(values)));
  if (state.status === 'saved') revalidatePath('/', 'layout');
  return state;
}
