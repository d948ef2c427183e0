import type { FormState } from '@/ui/form/form-state';
import {
  checkedForm,
  CONSOLE_FAULTS,
  type ConsoleFaultCode,
  type FormName,
  type FormValues,
  type Outcome,
  problemOf,
  typedInto,
} from '@/wire';

/** Checks a form and hands it on. What was typed comes back with each complaint beside its field, so nothing is lost. */
export async function saved<Name extends FormName>(
  name: Name,
  form: FormData,
  save: (values: FormValues<Name>) => Promise<Outcome<unknown, ConsoleFaultCode>>,
): Promise<FormState> {
  const typed = typedInto(form);
  const checked = checkedForm(name, typed);
  if (!checked.ok) return { status: 'invalid', typed, errors: checked.errors, refusal: null };
  const outcome = await save(checked.values);
  if (!outcome.ok) return { status: 'invalid', typed, errors: {}, refusal: refusalWords(outcome)! };
  return { status: 'saved', at: Date.now() };
}

/** What stands in the way, with the next step; null when nothing did. */
export function refusalWords(outcome: Outcome<unknown, ConsoleFaultCode>): string | null {
  return outcome.ok ? null : problemOf(CONSOLE_FAULTS, outcome.fault).detail;
}

/** What is wrong with something that was sent, in its first place. */
export const issueWords = ({ issues }: { readonly issues: readonly { readonly message: string }[] }): string =>
  issues[0]?.message ?? 'That cannot be read.';

/** A field of a form, null when it is blank or missing. */
export const textOf = (form: FormData, name: string) => {
  const value = form.get(name);
  return typeof value === 'string' && value !== '' ? value : null;
};
