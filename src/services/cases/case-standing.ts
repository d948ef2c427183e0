import { caseEvidence, FITNESS_EFFECTS, type CaseEvidence, type CaseRun, type FitnessCode } from '@/core';
import type { CaseRunRow, StoredCase } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { calendarIn } from '../diagnosis';

const speaksAgainst = (code: FitnessCode) => ['voids', 'unproven', 'bars'].includes(FITNESS_EFFECTS[code]);

function caseRun(row: CaseRunRow, day: string): CaseRun {
  const unfit = [...new Set([...row.flagsDown, ...row.flagsUp])].filter(speaksAgainst);
  const shared = row.evidence === 'together' && !unfit.includes('shared-on-purpose');
  return {
    ...{ id: row.id, startedAtMs: row.startedAtMs, day, byCable: row.linkKind === 'wired' },
    // The demo's own runs go through what stands in for its line: there they are the real ones.
    practice: row.practice && !row.demo,
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
  const runs = rows.map((row) => caseRun(row, momentOf(row.startedAtMs).day));
  return { rows, evidence: caseEvidence(runs, stored.rule) };
}
