'use server';

import { revalidatePath } from 'next/cache';
import type { z } from 'zod';
import {
  CONSOLE_FAULTS,
  removeDevice,
  removePeer,
  saveDevice,
  saveLine,
  saveOffice,
  savePeer,
  theConsole,
  type ConsoleFaultCode,
} from '@/services';
import type { FormState } from '@/ui/set-up/form-state';
import { deviceFormSchema, lineFormSchema, officeFormSchema, peerFormSchema, problemOf, type Outcome } from '@/wire';

/** Checks a form and saves it. What was typed comes back with each complaint beside its field, so nothing is lost. */
async function saved<Schema extends z.ZodType>(
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
  revalidatePath('/', 'layout');
  return { status: 'saved', at: Date.now() };
}

const textOf = (form: FormData, name: string) => {
  const value = form.get(name);
  return typeof value === 'string' && value !== '' ? value : null;
};

export async function saveOfficeAction(_: FormState, form: FormData): Promise<FormState> {
  return saved(form, officeFormSchema, async ({ name }) => ({ ok: true, value: await saveOffice(theConsole(), name) }));
}

export async function saveLineAction(_: FormState, form: FormData): Promise<FormState> {
  return saved(form, lineFormSchema, (line) => saveLine(theConsole(), textOf(form, 'siteId') ?? '', line));
}

export async function saveDeviceAction(_: FormState, form: FormData): Promise<FormState> {
  return saved(form, deviceFormSchema, (device) =>
    saveDevice(theConsole(), textOf(form, 'siteId') ?? '', textOf(form, 'deviceId'), device),
  );
}

export async function removeDeviceAction(deviceId: string): Promise<void> {
  await removeDevice(theConsole(), deviceId);
  revalidatePath('/', 'layout');
}

export async function savePeerAction(_: FormState, form: FormData): Promise<FormState> {
  return saved(form, peerFormSchema, (peer) =>
    savePeer(theConsole(), textOf(form, 'siteId') ?? '', textOf(form, 'peerId'), peer),
  );
}

export async function removePeerAction(peerId: string): Promise<void> {
  await removePeer(theConsole(), peerId);
  revalidatePath('/', 'layout');
}
