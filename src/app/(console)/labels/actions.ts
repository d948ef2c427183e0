'use server';

import { act, COMMANDS } from '@/app/commands';

export async function makeLabelsAction(siteId: string): Promise<void> {
  await act(COMMANDS.makeLabels, { siteId }, '/labels');
}

export async function revokeLabelsAction(siteId: string): Promise<void> {
  await act(COMMANDS.revokeLabels, { siteId }, '/labels');
}
