import type { BloatRating, VerdictWord } from '@/core';
import type { Site } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { crossingOf } from '../office/line-choice';
import { weekOfPlan, type RunVersions } from '../runs/kept-weeks';
import { lineBudget } from '../schedules';
import { standsOut } from './stands-out';
import { weekOfRuns } from './week-of-runs';

/** An office in one line of a list of many. */
export interface OfficeGlance {
  readonly siteId: string;
  readonly name: string;
  readonly lineName: string | null;
  readonly downBps: number | null;
  readonly upBps: number | null;
  readonly verdict: VerdictWord;
  readonly addedMs: number | null;
  readonly rating: BloatRating | null;
  /** Of the occasions of seven days that could tell, how many met the plan; null: none could. */
  readonly planShare: number | null;
  readonly occasions: number;
  /** What stands out: how many things, and the first of them. */
  readonly findings: { readonly count: number; readonly first: string | null };
  readonly silentAgents: readonly string[];
  /** Used of the month's data volume; null: none is named. */
  readonly budgetShare: number | null;
  readonly newestAtMs: number | null;
  /** What it is sorted by: the more, the sooner somebody should look. */
  readonly trouble: number;
}

/** An office whose plan is not met, whose agents are silent and in which things stand out comes before one that is merely slow. */
function troubleOf(of: Omit<OfficeGlance, 'trouble'>): number {
  const verdict = { starved: 4, thin: 2, capped: 1, full: 0, 'no verdict': 0 }[of.verdict];
  const missed = of.planShare === null ? 0 : 4 * (1 - of.planShare);
  const delay = of.rating === 'collapsed' ? 2 : of.rating === 'soft' ? 1 : 0;
  const budget = of.budgetShare !== null && of.budgetShare >= 1 ? 1 : 0;
  return verdict + missed + delay + budget + 2 * of.silentAgents.length + of.findings.count;
}

async function glance(context: ConsoleContext, site: Site, versions: RunVersions): Promise<OfficeGlance> {
  const { store } = context;
  const nowMs = context.wallMs();
  const { line, plan } = await crossingOf(context, site.id, { reach: 'internet' }, nowMs);
  const [week, { met, told }, out, agents, budget] = await Promise.all([
    weekOfRuns(context, site.id, 'internet', plan, versions),
    line === null ? { met: 0, told: 0 } : weekOfPlan(context, site.id, line.id, versions),
    standsOut(context, site.id, []),
    store.agents.ofSite(site.id),
    line === null || line.budgetBytes === null ? null : lineBudget(context, line),
  ]);
  // What got better is no trouble, and what was let be is known.
  const open = out.findings.filter(({ isGood, state }) => !isGood && state !== 'let-be');
  const [first] = open;
  const silent = agents.filter(({ deviceId }) => !context.standing.isPresent(deviceId));
  const devices = silent.length === 0 ? [] : await store.sites.devicesOf(site.id);
  const of = {
    ...{ siteId: site.id, name: site.name, lineName: line?.name ?? null },
    ...{ downBps: week.downBps, upBps: week.upBps, verdict: week.verdict, addedMs: week.addedMs, rating: week.rating },
    planShare: told === 0 ? null : met / told,
    occasions: told,
    findings: { count: open.length, first: first?.sentence ?? null },
    silentAgents: silent.map(({ deviceId }) => devices.find(({ id }) => id === deviceId)?.name ?? ''),
    budgetShare: budget === null || budget.budgetBytes === null ? null : budget.movedBytes / budget.budgetBytes,
    newestAtMs: week.newest?.startedAtMs ?? null,
  };
  return { ...of, trouble: troubleOf(of) };
}

/** All offices, those with the most trouble first. */
export async function officesAtAGlance(context: ConsoleContext): Promise<OfficeGlance[]> {
  const [sites, versions] = [await context.store.sites.all(), await context.store.runs.siteVersions()];
  const found = await Promise.all(sites.map((site) => glance(context, site, versions)));
  return found.sort((a, b) => b.trouble - a.trouble || a.name.localeCompare(b.name));
}
