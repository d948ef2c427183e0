'use server';

import { revalidatePath } from 'next/cache';
import { act, actOnForm, COMMANDS, perform } from '@/app/commands';
import { refusalWords, textOf } from '@/app/form-action';
import type { FormState } from '@/ui/form/form-state';
import type { TokenState } from '@/ui/set-up/scripts-section';
import { checkedForm, typedInto } from '@/wire';

const HERE = '/set-up';
const idIn = (form: FormData, name: string) => textOf(form, name) ?? '';

/** What kept it from being made stands in the section afterwards. */
export async function backUpNowAction(): Promise<void> {
  await act(COMMANDS.backUpNow, null, HERE);
}

export async function saveOfficeAction(_: FormState, form: FormData): Promise<FormState> {
  const siteId = textOf(form, 'siteId');
  return actOnForm('office', form, COMMANDS.saveOffice, ({ name, timeZone }) => ({ siteId, name, timeZone }));
}

export async function saveLineAction(_: FormState, form: FormData): Promise<FormState> {
  const ids = { siteId: idIn(form, 'siteId'), lineId: textOf(form, 'lineId') };
  return actOnForm('line', form, COMMANDS.saveLine, (line) => ({ ...ids, form: line }));
}

export async function saveKeepingAction(_: FormState, form: FormData): Promise<FormState> {
  return actOnForm('keeping', form, COMMANDS.keepSamples, ({ sampleDays }) => ({ days: sampleDays }));
}

export async function saveLetterheadAction(_: FormState, form: FormData): Promise<FormState> {
  const file = form.get('logo');
  const chosen = file instanceof File && file.size > 0 ? new Uint8Array(await file.arrayBuffer()) : ('keep' as const);
  const logo = form.get('noLogo') === 'yes' ? null : chosen;
  return actOnForm('letterhead', form, COMMANDS.saveLetterhead, (letterhead) => ({ ...letterhead, logo }));
}

export async function savePlanAction(_: FormState, form: FormData): Promise<FormState> {
  const ids = { siteId: idIn(form, 'siteId'), lineId: idIn(form, 'lineId'), planId: idIn(form, 'planId') };
  return actOnForm('plan', form, COMMANDS.correctPlan, (plan) => ({ ...ids, form: plan }));
}

export async function removePlanAction(siteId: string, lineId: string, planId: string): Promise<void> {
  await act(COMMANDS.removePlan, { siteId, lineId, planId }, HERE);
}

export async function putLineInUseAction(siteId: string, lineId: string): Promise<void> {
  await act(COMMANDS.putLineInUse, { siteId, lineId }, HERE);
}

/** Removes a line; answers with what stands in the way, or null. */
export async function removeLineAction(siteId: string, lineId: string): Promise<string | null> {
  return act(COMMANDS.removeLine, { siteId, lineId }, HERE);
}

export async function saveDeviceAction(_: FormState, form: FormData): Promise<FormState> {
  const ids = { siteId: idIn(form, 'siteId'), deviceId: textOf(form, 'deviceId') };
  return actOnForm('device', form, COMMANDS.saveDevice, (device) => ({ ...ids, form: device }));
}

export async function removeDeviceAction(deviceId: string): Promise<void> {
  await act(COMMANDS.removeDevice, { deviceId }, HERE);
}

export async function mergeDevicesAction(fromId: string, intoId: string): Promise<void> {
  await act(COMMANDS.mergeDevices, { fromId, intoId }, HERE);
}

export async function openDeviceAction(deviceId: string): Promise<void> {
  await act(COMMANDS.openDevice, { deviceId }, HERE);
}

export async function pinPeerAction(peerId: string): Promise<void> {
  await act(COMMANDS.pinPeer, { peerId }, HERE);
}

export async function acceptPeerKeyAction(peerId: string): Promise<void> {
  await act(COMMANDS.acceptPeerKey, { peerId }, HERE);
}

export async function savePeerAction(_: FormState, form: FormData): Promise<FormState> {
  const ids = { siteId: idIn(form, 'siteId'), peerId: textOf(form, 'peerId') };
  return actOnForm('peer', form, COMMANDS.savePeer, (peer) => ({ ...ids, form: peer }));
}

export async function saveWebFarEndAction(_: FormState, form: FormData): Promise<FormState> {
  const ids = { siteId: idIn(form, 'siteId'), peerId: textOf(form, 'peerId') };
  return actOnForm('web-far-end', form, COMMANDS.saveWebFarEnd, (web) => ({ ...ids, form: web }));
}

export async function removePeerAction(peerId: string): Promise<void> {
  await act(COMMANDS.removePeer, { peerId }, HERE);
}

/** Puts back what was removed; answers with what stands in the way, or null. */
export async function undoRemovalAction(removalId: string): Promise<string | null> {
  return act(COMMANDS.undoRemoval, { removalId }, HERE);
}

/** Makes a token and answers with it: the only time that it is seen. */
export async function makeTokenAction(_: TokenState, form: FormData): Promise<TokenState> {
  const checked = checkedForm('token', typedInto(form));
  if (!checked.ok) return { status: 'refused', why: Object.values(checked.errors).join(' ') };
  const made = await perform(COMMANDS.makeToken, checked.values);
  if (!made.ok) return { status: 'refused', why: refusalWords(made)! };
  revalidatePath('/', 'layout');
  return { status: 'made', name: checked.values.name, token: made.value };
}

export async function revokeTokenAction(tokenId: string): Promise<void> {
  await act(COMMANDS.revokeToken, { tokenId }, HERE);
}

export async function renewJoinCodeAction(siteId: string): Promise<void> {
  await act(COMMANDS.renewJoinCode, { siteId }, HERE);
}
