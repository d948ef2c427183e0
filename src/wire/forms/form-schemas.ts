import type * as z from 'zod';
import {
  changePassphraseFormSchema,
  newPassphraseFormSchema,
  signInFormSchema,
  technicianFormSchema,
  tokenFormSchema,
  welcomeFormSchema,
} from './access-schemas';
import { caseFormSchema } from './case-schemas';
import { alarmRulesFormSchema, mailServerFormSchema, recipientFormSchema } from './alarm-schemas';
import { laneFormSchema, markFormSchema } from './lane-schemas';
import { budgetFormSchema } from './schedule-schemas';
import { alternationFormSchema } from './side-schemas';
import {
  deviceFormSchema,
  keepingFormSchema,
  letterheadFormSchema,
  lineFormSchema,
  officeFormSchema,
  peerFormSchema,
  planFormSchema,
  runNotesSchema,
  webFarEndFormSchema,
} from './set-up-schemas';

/** The console's forms by name: the browser checks with these before it sends, the server again when it receives. */
export const FORM_SCHEMAS = {
  case: caseFormSchema,
  budget: budgetFormSchema,
  lane: laneFormSchema,
  mark: markFormSchema,
  'alarm-rules': alarmRulesFormSchema,
  recipient: recipientFormSchema,
  'mail-server': mailServerFormSchema,
  alternation: alternationFormSchema,
  keeping: keepingFormSchema,
  letterhead: letterheadFormSchema,
  office: officeFormSchema,
  line: lineFormSchema,
  plan: planFormSchema,
  device: deviceFormSchema,
  peer: peerFormSchema,
  'web-far-end': webFarEndFormSchema,
  token: tokenFormSchema,
  'run-notes': runNotesSchema,
  'sign-in': signInFormSchema,
  welcome: welcomeFormSchema,
  'new-passphrase': newPassphraseFormSchema,
  'change-passphrase': changePassphraseFormSchema,
  technician: technicianFormSchema,
} as const satisfies Readonly<Record<string, z.ZodType>>;

export type FormName = keyof typeof FORM_SCHEMAS;
export type FormValues<Name extends FormName> = z.infer<(typeof FORM_SCHEMAS)[Name]>;

/** Field name → the first complaint about it. */
export type FormErrors = Readonly<Record<string, string>>;

export type CheckedForm<Name extends FormName> =
  | { readonly ok: true; readonly values: FormValues<Name> }
  | { readonly ok: false; readonly errors: FormErrors };

/** Holds what was typed (field name → text) against the form's schema. */
export function checkedForm<Name extends FormName>(
  name: Name,
  typed: Readonly<Record<string, string>>,
): CheckedForm<Name> {
  const parsed = FORM_SCHEMAS[name].safeParse(typed);
  if (parsed.success) return { ok: true, values: parsed.data as FormValues<Name> };
  const errors: Record<string, string> = {};
  for (const { path, message } of parsed.error.issues) errors[String(path[0])] ??= message;
  return { ok: false, errors };
}

/** The text fields of a form, by name; a box that is not ticked is missing. */
export const typedInto = (form: FormData): Record<string, string> =>
  Object.fromEntries([...form].filter((entry): entry is [string, string] => typeof entry[1] === 'string'));
