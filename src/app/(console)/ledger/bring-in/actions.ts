'use server';

import { act, COMMANDS } from '@/app/commands';

export async function undoImportAction(importId: string): Promise<string | null> {
  return act(COMMANDS.undoImport, { importId }, '/ledger/bring-in');
}
