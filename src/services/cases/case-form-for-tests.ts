import { caseFormSchema, type CaseForm } from '@/wire';
import type { ConsoleContext } from '../console/console-context';

/** A case against the first line of an office as the form sends it. */
export async function caseFormFor(
  { store }: ConsoleContext,
  siteId: string,
  typed: Readonly<Record<string, string>> = {},
): Promise<CaseForm> {
  const [line] = await store.sites.linesOf(siteId);
  return caseFormSchema.parse({
    ...{ title: 'Tarnfell, November', lineId: line!.id, notes: '' },
    ...{ downAdvertised: '500', downUsual: '450', downLeast: '300', upAdvertised: '100', upUsual: '', upLeast: '60' },
    ...{ runs: '3', days: '1', perDay: '3', apartMinutes: '5', openedFrom: '' },
    ...{ usualMissedPercent: '90', leastDays: '1', advertisedPercent: '90', advertisedDays: '1' },
    ...typed,
  });
}
