'use server';

import { act, actOnForm, COMMANDS } from '@/app/commands';
import { issueWords } from '@/app/form-action';
import { technician } from '@/app/role';
import { readSchedule, runsAWeek, type ScheduledFor } from '@/core';
import { bytesAMonth, scheduledDevices, theConsole } from '@/services';
import type { ScheduleVolume } from '@/ui/agent/schedule-volume';
import type { FormState } from '@/ui/form/form-state';
import { betweenOrderSchema, scheduledForSchema } from '@/wire';

const HERE = '/agent';

/** Whom a choice means: `device ID`, `spot ID`, `device-kind box` or `office`; null: none of these. */
function readWho(text: string): ScheduledFor | null {
  const [kind, ...rest] = text.split(' ');
  const of = rest.join(' ');
  const named = { device: { deviceId: of }, spot: { spotId: of }, 'device-kind': { deviceKind: of } }[kind ?? ''];
  return scheduledForSchema.safeParse({ kind, ...named }).data ?? null;
}

/** What a schedule would come to, before it is made. */
export async function estimateScheduleAction(
  siteId: string,
  sentence: string,
  whom: string,
): Promise<ScheduleVolume | null> {
  if (!(await technician()).ok) return null;
  const [read, who] = [readSchedule(sentence), readWho(whom)];
  if (!read.ok || who === null) return null;
  const context = theConsole();
  const devices = await scheduledDevices(context, { siteId, who });
  const { bytes, without } = await bytesAMonth(context, read.schedule, devices);
  return {
    runsAWeek: runsAWeek(read.schedule) * devices.length,
    devices: devices.map(({ name }) => name),
    bytesAMonth: bytes,
    without,
  };
}

export async function measureBetweenAction(order: unknown): Promise<string | null> {
  const parsed = betweenOrderSchema.safeParse(order);
  return parsed.success ? act(COMMANDS.queueBetween, parsed.data, HERE) : issueWords(parsed.error);
}

export async function makeScheduleAction(
  siteId: string,
  sentence: string,
  whom: string,
  spreadMinutes: number,
): Promise<string | null> {
  const who = readWho(whom);
  if (who === null) return 'Say for whom.';
  return act(COMMANDS.makeSchedule, { siteId, sentence, who, spreadMinutes }, HERE);
}

export async function pauseScheduleAction(id: string, paused: boolean): Promise<string | null> {
  return act(COMMANDS.pauseSchedule, { id, paused }, HERE);
}

export async function removeScheduleAction(id: string): Promise<string | null> {
  return act(COMMANDS.removeSchedule, { id }, HERE);
}

export async function retireAgentAction(deviceId: string): Promise<string | null> {
  return act(COMMANDS.retireAgent, { deviceId }, HERE);
}

export async function changeSeenAction(changeId: string): Promise<string | null> {
  return act(COMMANDS.noteLinkChange, { changeId }, HERE);
}

export async function neighboursKnownAction(siteId: string): Promise<string | null> {
  return act(COMMANDS.noteNeighboursKnown, { siteId }, HERE);
}

export async function setBudgetAction(lineId: string, _: FormState, form: FormData): Promise<FormState> {
  return actOnForm('budget', form, COMMANDS.setBudget, ({ gigabytes }) => ({ lineId, gigabytes }));
}
