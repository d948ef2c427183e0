import { swapEffect, type LedgerTerm } from '@/core';
import type { ConsoleContext } from '../console/console-context';
import { officeEvidence } from '../diagnosis/office-evidence';

async function runsOfFinding({ store }: ConsoleContext, siteId: string, id: string): Promise<readonly string[]> {
  const stored = await store.findings.finding(id);
  if (stored?.siteId !== siteId) return [];
  const { evidence } = stored.finding;
  return [...evidence.for, ...evidence.against];
}

async function runsOfSwap(context: ConsoleContext, siteId: string, id: string): Promise<readonly string[]> {
  const { swaps, occasions } = await officeEvidence(context, siteId);
  const swap = swaps.find((each) => each.id === id);
  return swap === undefined ? [] : (swapEffect(swap, swaps, occasions)?.runIds ?? []);
}

/** Ids of the runs that the findings and swaps of some terms are about, by "finding ID" and "swap ID". */
export async function runsOfTerms(
  context: ConsoleContext,
  siteId: string,
  terms: readonly LedgerTerm[],
): Promise<ReadonlyMap<string, readonly string[]>> {
  const asked = terms.flatMap((term) => (term.is === 'id' ? [term] : []));
  const entries = await Promise.all(
    asked.map(async ({ field, id }) => {
      const runs = field === 'finding' ? runsOfFinding(context, siteId, id) : runsOfSwap(context, siteId, id);
      return [`${field} ${id}`, await runs] as const;
    }),
  );
  return new Map(entries);
}
