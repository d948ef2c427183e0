'use server';

import { redirect } from 'next/navigation';
import { act, COMMANDS, perform } from '@/app/commands';
import { issueWords, refusalWords } from '@/app/form-action';
import type { CheckCode, Reach } from '@/core';
import {
  endHuntSchema,
  huntNoteSchema,
  openHuntSchema,
  queueOrderSchema,
  queueSetSchema,
  ruleOutSchema,
  swapSchema,
  type SwapInput,
} from '@/wire';

const pathOf = (huntId: string) => `/hunt/${huntId}`;

/** Opens a hunt about a device, or about nothing yet, and goes there. */
export async function openHuntAction(siteId: string, deviceId: string | null): Promise<string | null> {
  const parsed = openHuntSchema.safeParse({ siteId, deviceId });
  if (!parsed.success) return issueWords(parsed.error);
  const outcome = await perform(COMMANDS.openHunt, parsed.data);
  if (!outcome.ok) return refusalWords(outcome);
  redirect(pathOf(outcome.value.id));
}

export async function runTestAction(
  siteId: string,
  huntId: string,
  { deviceId, reach }: { readonly deviceId: string; readonly reach: Reach },
): Promise<string | null> {
  const order = { siteId, deviceIds: [deviceId], reaches: [reach], times: 1, profile: 'standard', together: false };
  const parsed = queueOrderSchema.safeParse(order);
  return parsed.success ? act(COMMANDS.queueTurns, parsed.data, pathOf(huntId)) : issueWords(parsed.error);
}

export async function noteSwapAction(
  siteId: string,
  huntId: string | null,
  swap: Pick<SwapInput, 'what' | 'segmentId' | 'deviceId' | 'note'>,
): Promise<string | null> {
  const parsed = swapSchema.safeParse({ ...swap, siteId, huntId });
  return parsed.success
    ? act(COMMANDS.noteSwap, parsed.data, huntId === null ? '/swaps' : pathOf(huntId))
    : issueWords(parsed.error);
}

export async function undoSwapAction(huntId: string | null, swapId: string): Promise<void> {
  await act(COMMANDS.undoSwap, { swapId }, huntId === null ? '/swaps' : pathOf(huntId));
}

export async function huntNoteAction(huntId: string, text: string): Promise<string | null> {
  const parsed = huntNoteSchema.safeParse({ huntId, text });
  return parsed.success ? act(COMMANDS.noteInHunt, parsed.data, pathOf(huntId)) : issueWords(parsed.error);
}

export async function ruleOutAction(huntId: string, check: CheckCode, out: boolean): Promise<string | null> {
  const parsed = ruleOutSchema.safeParse({ huntId, check, out });
  return parsed.success ? act(COMMANDS.ruleOut, parsed.data, pathOf(huntId)) : issueWords(parsed.error);
}

export async function endHuntAction(huntId: string, state: string, note: string): Promise<string | null> {
  const parsed = endHuntSchema.safeParse({ huntId, state, note });
  return parsed.success ? act(COMMANDS.endHunt, parsed.data, pathOf(huntId)) : issueWords(parsed.error);
}

export async function resumeHuntAction(huntId: string): Promise<void> {
  await act(COMMANDS.resumeHunt, { huntId }, pathOf(huntId));
}

/** The queue was set: three quick runs out to the internet follow where a device stands by. */
export async function setQueueAction(
  siteId: string,
  huntId: string,
  mbps: number,
  deviceId: string | null,
): Promise<string | null> {
  const parsed = queueSetSchema.safeParse({ huntId, mbps });
  if (!parsed.success) return issueWords(parsed.error);
  const refused = await act(COMMANDS.setQueue, { huntId, bps: mbps * 1e6 }, pathOf(huntId));
  if (refused !== null || deviceId === null) return refused;
  const order = { siteId, deviceIds: [deviceId], reaches: ['internet'], times: 3, profile: 'quick', together: false };
  return act(COMMANDS.queueTurns, queueOrderSchema.parse(order), pathOf(huntId));
}
