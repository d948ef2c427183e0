'use server';

import { revalidatePath } from 'next/cache';
import { COMMANDS, perform, act } from '@/app/commands';
import { issueWords, refusalWords } from '@/app/form-action';
import { technicianOrSignIn } from '@/app/role';
import { ledgerOf, matchingRuns, theConsole, type LedgerQuery } from '@/services';
import { drawnRun } from '@/ui/ledger/drawn-run';
import { readLedgerChoice } from '@/ui/ledger/ledger-href';
import type { DrawnSlice } from '@/ui/ledger/use-ledger-rows';
import {
  chosenRunsSchema,
  ledgerViewSchema,
  leaveOutSchema,
  noteRunsSchema,
  removeViewSchema,
  tagRunsSchema,
} from '@/wire';

const PLACE = '/ledger';

function queryOf(search: string, siteId: string): LedgerQuery {
  const { query, deviceId, sort, way } = readLedgerChoice(new URLSearchParams(search));
  return {
    ...{ siteId, query, deviceId: deviceId ?? undefined, sort: sort ?? undefined },
    descending: way === null ? undefined : way === 'down',
  };
}

/** What follows in the ledger as it is looked at. */
export async function moreRunsAction(siteId: string, search: string, after: string): Promise<DrawnSlice> {
  await technicianOrSignIn(PLACE);
  const found = await ledgerOf(theConsole(), { ...queryOf(search, siteId), after });
  if (!found.ok) return { runs: [], next: null };
  const { runs, next, site, nowMs } = found.value;
  return { runs: runs.map((run) => drawnRun(run, site.timeZone, nowMs)), next };
}

/** Ids of all runs that match, the newest ten thousand at most. */
export async function matchingRunsAction(siteId: string, search: string): Promise<readonly string[]> {
  await technicianOrSignIn(PLACE);
  return matchingRuns(theConsole(), queryOf(search, siteId));
}

export async function tagRunsAction(
  siteId: string,
  runIds: readonly string[],
  tag: string,
  on: boolean,
): Promise<string | null> {
  const parsed = tagRunsSchema.safeParse({ siteId, runIds, tag, on });
  return parsed.success ? act(COMMANDS.tagRuns, parsed.data, PLACE) : issueWords(parsed.error);
}

export async function noteRunsAction(siteId: string, runIds: readonly string[], note: string): Promise<string | null> {
  const parsed = noteRunsSchema.safeParse({ siteId, runIds, note });
  return parsed.success ? act(COMMANDS.noteRuns, parsed.data, PLACE) : issueWords(parsed.error);
}

export async function leaveOutRunsAction(
  siteId: string,
  runIds: readonly string[],
  reason: string | null,
): Promise<string | null> {
  const parsed = leaveOutSchema.safeParse({ siteId, runIds, reason });
  return parsed.success ? act(COMMANDS.leaveOutRuns, parsed.data, PLACE) : issueWords(parsed.error);
}

export async function removeRunsAction(
  siteId: string,
  runIds: readonly string[],
): Promise<{ readonly removalId: string | null; readonly refused: string | null }> {
  const parsed = chosenRunsSchema.safeParse({ siteId, runIds });
  if (!parsed.success) return { removalId: null, refused: issueWords(parsed.error) };
  const outcome = await perform(COMMANDS.removeRuns, parsed.data);
  revalidatePath('/', 'layout');
  return { removalId: outcome.ok ? outcome.value.removalId : null, refused: refusalWords(outcome) };
}

export async function putRunsBackAction(removalId: string): Promise<string | null> {
  return act(COMMANDS.undoRemoval, { removalId }, PLACE);
}

export async function saveViewAction(siteId: string, name: string, query: string): Promise<string | null> {
  const parsed = ledgerViewSchema.safeParse({ siteId, name, query });
  return parsed.success ? act(COMMANDS.saveLedgerView, parsed.data, PLACE) : issueWords(parsed.error);
}

export async function removeViewAction(siteId: string, name: string): Promise<string | null> {
  const parsed = removeViewSchema.safeParse({ siteId, name });
  return parsed.success ? act(COMMANDS.removeLedgerView, parsed.data, PLACE) : issueWords(parsed.error);
}
