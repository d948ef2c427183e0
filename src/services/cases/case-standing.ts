import { caseEvidence, unfitOf, type CaseEvidence, type CaseRun } from '@/core';
import type { CaseRunRow, StoredCase } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { calendarIn } from '../diagnosis';

function caseRun(row: CaseRunRow, day: string, isDemo: boolean): CaseRun {
  const unfit = unfitOf([...row.flagsDown, ...row.flagsUp]);
  const shared = row.evidence === 'together' && !unfit.includes('shared-on-purpose');
  return {
    ...{ id: row.id, startedAtMs: row.startedAtMs, day, byCable: row.linkKind === 'wired' },
    // In the demo the practice line is the line, and each page of the record says what it is made of.
    practice: row.practice && !isDemo,
    ...{ downBps: row.downBps, upBps: row.upBps, leftOut: row.evidence === 'left-out' ? (row.leftOut ?? '') : null },
    unfit: shared ? [...unfit, 'shared-on-purpose'] : unfit,
  };
}

/** A case's runs, and which of them count by now. */
export async function caseStanding(
  { store }: Pick<ConsoleContext, 'store'>,
  stored: StoredCase,
): Promise<{ readonly rows: readonly CaseRunRow[]; readonly evidence: CaseEvidence }> {
  const [site, rows] = await Promise.all([store.sites.byId(stored.siteId), store.cases.runs(stored)]);
  const momentOf = calendarIn(site?.timeZone ?? null);
  const runs = rows.map((row) => caseRun(row, momentOf(row.startedAtMs).day, site?.demo ?? false));
  return { rows, evidence: caseEvidence(runs, stored.rule) };
}
