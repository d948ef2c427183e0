import type { z } from 'zod';
import type { FormState } from '@/ui/form/form-state';
import { CONSOLE_FAULTS, type ConsoleFaultCode, type Outcome, problemOf } from '@/wire';

/** Checks a form and hands it on. What was typed comes back with each complaint beside its field, so nothing is lost. */
export async function saved<Schema extends z.ZodType>(
  form: FormData,
  schema: Schema,
  save: (values: z.infer<Schema>) => Promise<Outcome<unknown, ConsoleFaultCode>>,
): Promise<FormState> {
  const typed = Object.fromEntries(
    [...form].filter((entry): entry is [string, string] => typeof entry[1] === 'string'),
  );
  const parsed = schema.safeParse(typed);
  if (!parsed.success) {
    const errors: Record<string, string> = {};
    for (const { path, message } of parsed.error.issues) errors[String(path[0])] ??= message;
    return { status: 'invalid', typed, errors, refusal: null };
  }
  const outcome = await save(parsed.data);
  if (!outcome.ok)
    return { status: 'invalid', typed, errors: {}, refusal: problemOf(CONSOLE_FAULTS, outcome.fault).detail };
  return { status: 'saved', at: Date.now() };
}

/** A field of a form, null when it is blank or missing. */
export const textOf = (form: FormData, name: string) => {
  const value = form.get(name);
  return typeof value === 'string' && value !== '' ? value : null;
};
