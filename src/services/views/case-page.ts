import { caseAnswer, planPayloadBps, type CaseAnswer, type CaseEvidence } from '@/core';
import type { CaseRunRow, Line, Site, StoredCase, StoredPlan } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { caseStanding } from '../cases';
import { planOfRow } from '../office/plan-of-row';

/** A case with its runs, and what they come to. */
export interface CasePage {
  readonly stored: StoredCase;
  readonly site: Pick<Site, 'id' | 'name' | 'demo' | 'timeZone'>;
  readonly line: Pick<Line, 'name' | 'provider'>;
  readonly evidence: CaseEvidence;
  readonly answer: CaseAnswer;
  /** All runs by id, as they are told in the record. */
  readonly rows: ReadonlyMap<string, CaseRunRow>;
  /** Where the plan that is written down names other figures than the case. */
  readonly otherPlan: { readonly name: string; readonly downBps: number; readonly upBps: number } | null;
  /** When a plan of this line was corrected after the case was opened; null: never. */
  readonly planCorrectedAtMs: number | null;
  readonly nowMs: number;
}

function otherPlanOf(stored: StoredCase, plans: readonly StoredPlan[], nowMs: number): CasePage['otherPlan'] {
  const plan = planOfRow(plans.findLast(({ validFromMs }) => validFromMs <= nowMs) ?? null);
  if (plan === null) return null;
  const [downBps, upBps] = [planPayloadBps(plan, 'down'), planPayloadBps(plan, 'up')];
  const { down, up } = stored.contract;
  const differs = (named: number | null, bps: number) => named !== null && Math.abs(named - bps) > 0.005 * bps;
  return differs(down.advertisedBps, downBps) || differs(up.advertisedBps, upBps)
    ? { name: plan.name, downBps, upBps }
    : null;
}

export async function casePageOf(context: ConsoleContext, id: string): Promise<Outcome<CasePage, 'case-unknown'>> {
  const { store } = context;
  const stored = await store.cases.byId(id);
  if (stored === null) return failed('case-unknown');
  const [site, line, { rows, evidence }, plans] = await Promise.all([
    store.sites.byId(stored.siteId),
    store.sites.line(stored.lineId),
    caseStanding(context, stored),
    store.sites.plansOf(stored.lineId),
  ]);
  if (site === null) return failed('case-unknown');
  const nowMs = context.wallMs();
  const byDay = [...plans].sort((a, b) => a.validFromMs - b.validFromMs);
  const corrected = plans.flatMap(({ correctedAtMs }) =>
    correctedAtMs !== null && correctedAtMs > stored.openedAtMs ? [correctedAtMs] : [],
  );
  return done({
    ...{ stored, evidence, nowMs, answer: caseAnswer(evidence, stored.contract, stored.rule) },
    site: { id: site.id, name: site.name, demo: site.demo, timeZone: site.timeZone },
    line: { name: line?.name ?? 'a line that was removed', provider: line?.provider ?? '' },
    rows: new Map(rows.map((row) => [row.id, row])),
    otherPlan: otherPlanOf(stored, byDay, nowMs),
    planCorrectedAtMs: corrected.length === 0 ? null : Math.max(...corrected),
  });
}

/** The cases of an office, the newest first, each with how it stands. */
export async function casesOf(context: ConsoleContext, siteId: string): Promise<CasePage[]> {
  const cases = await context.store.cases.ofSite(siteId);
  const pages = await Promise.all(cases.map(({ id }) => casePageOf(context, id)));
  return pages.flatMap((page) => (page.ok ? [page.value] : []));
}
