import { sideBySide, trayNames, type QueryFault, type SideBySide, type Tray } from '@/core';
import type { StoredComparison, StoredTray } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { opensSharedComparison, sharedComparisonPath } from '../runs';
import { termsOf } from './ledger';
import { runsOfTerms } from './runs-of-terms';
import { sideRunsOf } from './side-runs';

/** A tray as it is shown: where its runs come from, and how many do not count. */
export interface ShownTray extends Tray {
  readonly query: string;
  readonly chosen: number | null;
  /** Runs that match and are evidence of nothing, or only of a sum. */
  readonly aside: number;
  readonly faults: readonly QueryFault[];
}

/** Runs side by side. */
export interface SidePage {
  readonly id: string;
  readonly name: string;
  readonly siteName: string;
  readonly demo: boolean;
  readonly byName: string;
  readonly madeAtMs: number;
  readonly trays: readonly ShownTray[];
  /** Those that are held side by side: an empty one keeps nobody from comparing the others. */
  readonly compared: readonly ShownTray[];
  readonly side: SideBySide;
  /** Path by which anybody may read it; null: it is not shared. */
  readonly sharePath: string | null;
}

async function filled(
  context: ConsoleContext,
  siteId: string,
  timeZone: string | null,
  { name, query, runIds }: StoredTray,
): Promise<ShownTray> {
  const { terms, faults } = termsOf({ query }, { timeZone }, context.wallMs());
  const all = runIds === null ? terms : [...terms, { is: 'run-ids', ids: runIds, not: false } as const];
  const found = await context.store.comparisons.runs(siteId, all, await runsOfTerms(context, siteId, all));
  const runs = sideRunsOf(found.runs, timeZone);
  return { name, query, runs, faults, aside: found.aside, chosen: runIds === null ? null : runIds.length };
}

async function pageOf(context: ConsoleContext, comparison: StoredComparison): Promise<SidePage> {
  const { id, siteId, name, byName, madeAtMs } = comparison;
  const site = await context.store.sites.byId(siteId);
  const found = await Promise.all(
    comparison.trays.map((tray) => filled(context, siteId, site?.timeZone ?? null, tray)),
  );
  const names = trayNames(found);
  const trays = found.map((tray, place) => ({ ...tray, name: names[place]! }));
  const filledOnes = trays.filter(({ runs }) => runs.length > 0);
  const compared = filledOnes.length < 2 ? trays : filledOnes;
  const { compare = (of: readonly Tray[]) => Promise.resolve(sideBySide(of)) } = context;
  // What is shown of a tray beside its runs stays here.
  const side = await compare(compared.map(({ name: tray, runs }) => ({ name: tray, runs })));
  return {
    ...{ id, name, byName, madeAtMs, trays, compared, side },
    ...{ siteName: site?.name ?? '', demo: site?.demo ?? false },
    sharePath: sharedComparisonPath(context, comparison),
  };
}

export async function sidePageOf(
  context: ConsoleContext,
  comparisonId: string,
): Promise<Outcome<SidePage, 'comparison-unknown'>> {
  const comparison = await context.store.comparisons.byId(comparisonId);
  return comparison === null ? failed('comparison-unknown') : done(await pageOf(context, comparison));
}

/** The same for whoever has its link. */
export async function sharedSidePageOf(
  context: ConsoleContext,
  comparisonId: string,
  proof: string,
): Promise<Outcome<SidePage, 'comparison-unknown'>> {
  const comparison = await context.store.comparisons.byId(comparisonId);
  if (comparison === null || !opensSharedComparison(context, comparison, proof)) return failed('comparison-unknown');
  return done(await pageOf(context, comparison));
}

/** The comparisons that were kept, the newest first, each with its trays as they were filled. */
export async function comparisonsOf(context: ConsoleContext, siteId: string): Promise<readonly StoredComparison[]> {
  return context.store.comparisons.ofSite(siteId);
}
