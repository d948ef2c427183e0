'use server';

import { revalidatePath } from 'next/cache';
import { redirect } from 'next/navigation';
import {
  acceptPeerKey,
  backUpNow,
  correctPlan,
  makeApiToken,
  mergeDevices,
  openDevice,
  pinPeer,
  putLineInUse,
  removeDevice,
  removeLine,
  removePeer,
  removePlan,
  renewJoinCode,
  revokeApiToken,
  saveDevice,
  saveLine,
  saveOffice,
  savePeer,
  theConsole,
  undoRemoval,
} from '@/services';
import { technician } from '@/app/role';
import { saved, textOf } from '@/app/form-action';
import type { FormState } from '@/ui/form/form-state';
import type { TokenState } from '@/ui/set-up/scripts-section';
import {
  checkedForm,
  type ConsoleFaultCode,
  type FormName,
  type FormValues,
  type Outcome,
  CONSOLE_FAULTS,
  problemOf,
  typedInto,
} from '@/wire';

/** Only the technician sets things up; what was saved shows everywhere at once. */
async function savedByTechnician<Name extends FormName>(
  name: Name,
  form: FormData,
  save: (values: FormValues<Name>) => Promise<Outcome<unknown, ConsoleFaultCode>>,
): Promise<FormState> {
  const state = await saved(name, form, async (values) => {
    const allowed = await technician();
    return allowed.ok ? save(values) : allowed;
  });
  if (state.status === 'saved') revalidatePath('/', 'layout');
  return state;
}

async function byTechnician(act: () => Promise<unknown>): Promise<void> {
  if (!(await technician()).ok) redirect('/sign-in?to=/set-up');
  await act();
  revalidatePath('/', 'layout');
}

/** What kept it from being made stands in the section afterwards. */
export async function backUpNowAction(): Promise<void> {
  return byTechnician(() => backUpNow(theConsole()));
}

export async function saveOfficeAction(_: FormState, form: FormData): Promise<FormState> {
  return savedByTechnician('office', form, ({ name }) =>
    saveOffice(theConsole(), textOf(form, 'siteId') || null, name),
  );
}

export async function saveLineAction(_: FormState, form: FormData): Promise<FormState> {
  return savedByTechnician('line', form, (line) =>
    saveLine(theConsole(), textOf(form, 'siteId') ?? '', textOf(form, 'lineId'), line),
  );
}

export async function savePlanAction(_: FormState, form: FormData): Promise<FormState> {
  const id = (name: string) => textOf(form, name) ?? '';
  return savedByTechnician('plan', form, (plan) =>
    correctPlan(theConsole(), id('siteId'), id('lineId'), id('planId'), plan),
  );
}

export async function removePlanAction(siteId: string, lineId: string, planId: string): Promise<void> {
  await byTechnician(() => removePlan(theConsole(), siteId, lineId, planId));
}

export async function putLineInUseAction(siteId: string, lineId: string): Promise<void> {
  await byTechnician(() => putLineInUse(theConsole(), siteId, lineId));
}

/** Removes a line; answers with what stands in the way, or null. */
export async function removeLineAction(siteId: string, lineId: string): Promise<string | null> {
  if (!(await technician()).ok) redirect('/sign-in?to=/set-up');
  const removed = await removeLine(theConsole(), siteId, lineId);
  revalidatePath('/', 'layout');
  return removed.ok ? null : problemOf(CONSOLE_FAULTS, removed.fault).detail;
}

export async function saveDeviceAction(_: FormState, form: FormData): Promise<FormState> {
  return savedByTechnician('device', form, (device) =>
    saveDevice(theConsole(), textOf(form, 'siteId') ?? '', textOf(form, 'deviceId'), device),
  );
}

export async function removeDeviceAction(deviceId: string): Promise<void> {
  await byTechnician(() => removeDevice(theConsole(), deviceId));
}

export async function mergeDevicesAction(fromId: string, intoId: string): Promise<void> {
  await byTechnician(() => mergeDevices(theConsole(), fromId, intoId));
}

export async function openDeviceAction(deviceId: string): Promise<void> {
  await byTechnician(() => openDevice(theConsole(), deviceId));
}

export async function pinPeerAction(peerId: string): Promise<void> {
  await byTechnician(() => pinPeer(theConsole(), peerId));
}

export async function acceptPeerKeyAction(peerId: string): Promise<void> {
  await byTechnician(() => acceptPeerKey(theConsole(), peerId));
}

export async function savePeerAction(_: FormState, form: FormData): Promise<FormState> {
  return savedByTechnician('peer', form, (peer) =>
    savePeer(theConsole(), textOf(form, 'siteId') ?? '', textOf(form, 'peerId'), peer),
  );
}

export async function removePeerAction(peerId: string): Promise<void> {
  await byTechnician(() => removePeer(theConsole(), peerId));
}

/** Puts back what was removed; answers with what stands in the way, or null. */
export async function undoRemovalAction(removalId: string): Promise<string | null> {
  if (!(await technician()).ok) redirect('/sign-in?to=/set-up');
  const undone = await undoRemoval(theConsole(), removalId);
  revalidatePath('/', 'layout');
  return undone.ok ? null : problemOf(CONSOLE_FAULTS, undone.fault).detail;
}

/** Makes a token and answers with it: the only time that it is seen. */
export async function makeTokenAction(_: TokenState, form: FormData): Promise<TokenState> {
  if (!(await technician()).ok) redirect('/sign-in?to=/set-up');
  const checked = checkedForm('token', typedInto(form));
  if (!checked.ok) return { status: 'refused', why: Object.values(checked.errors).join(' ') };
  const made = await makeApiToken(theConsole(), checked.values.name);
  if (!made.ok) return { status: 'refused', why: problemOf(CONSOLE_FAULTS, made.fault).detail };
  revalidatePath('/', 'layout');
  return { status: 'made', name: checked.values.name, token: made.value };
}

export async function revokeTokenAction(tokenId: string): Promise<void> {
  await byTechnician(() => revokeApiToken(theConsole(), tokenId));
}

export async function renewJoinCodeAction(siteId: string): Promise<void> {
  await byTechnician(() => renewJoinCode(theConsole(), siteId));
}
