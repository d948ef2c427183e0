import { median, type Reach } from '@/core';
import type { FiguresSince, PlanMet, Store } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { crossingOf } from '../office/line-choice';

const WEEK_MS = 7 * 24 * 3600_000;
/** Without any run that came or changed, the begin of the seven days may lie so far back. */
const STANDS_MS = 10 * 60_000;

/** Medians of a week: rates in bits per second, delay in ms. */
export interface WeekFigures extends Pick<FiguresSince, 'count' | 'newest'> {
  readonly downBps: number | null;
  readonly upBps: number | null;
  readonly addedMs: number | null;
}

/** How many changes of the runs of each office the database has counted; by its id. */
export type RunVersions = ReadonlyMap<string, number>;

interface Kept {
  readonly version: number | null;
  readonly readAtMs: number;
  readonly found: Promise<unknown>;
}

const atHand = new WeakMap<Store, Map<string, Kept>>();

/** What was read of an office's last seven days, until the database has counted a change of its runs. */
async function kept<Found>(
  { store, wallMs }: ConsoleContext,
  siteId: string,
  { versions, what }: { readonly versions: RunVersions | null; readonly what: string },
  read: (sinceMs: number) => Promise<Found>,
): Promise<Found> {
  const ofStore = atHand.get(store) ?? new Map<string, Kept>();
  atHand.set(store, ofStore);
  // Asked first: a change that comes while it is read is counted, and it is read again the next time.
  const version = versions === null ? await store.runs.siteVersion(siteId) : (versions.get(siteId) ?? null);
  const nowMs = wallMs();
  const key = `${siteId} ${what}`;
  const before = ofStore.get(key);
  if (before?.version === version && nowMs >= before.readAtMs && nowMs - before.readAtMs < STANDS_MS)
    return before.found as Promise<Found>;
  const found = read(nowMs - WEEK_MS);
  ofStore.set(key, { version, readAtMs: nowMs, found });
  found.catch(() => ofStore.delete(key));
  return found;
}

/** What one way of an office gave over the last seven days. `versions`: asked for just before, of all offices at once. */
export function weekFigures(
  context: ConsoleContext,
  siteId: string,
  reach: Reach,
  versions: RunVersions | null = null,
): Promise<WeekFigures> {
  return kept(context, siteId, { versions, what: reach }, async (sinceMs) => {
    const { count, newest, downBps, upBps, addedMs } = await context.store.runs.figuresSince(siteId, reach, sinceMs);
    return { count, newest, downBps: median(downBps), upBps: median(upBps), addedMs: median(addedMs) };
  });
}

/** Of the occasions of a line in the last seven days that could tell, how many met the plan. */
export function weekOfPlan(
  context: ConsoleContext,
  siteId: string,
  lineId: string,
  versions: RunVersions | null = null,
): Promise<PlanMet> {
  return kept(context, siteId, { versions, what: `plan ${lineId}` }, (sinceMs) =>
    context.store.alarms.planMetSince(lineId, sinceMs),
  );
}

/** Reads what the list of all offices is going to ask, where runs have come since: whoever opens it waits for none of that. */
export async function readWeeks(context: ConsoleContext): Promise<void> {
  const versions = await context.store.runs.siteVersions();
  for (const { id } of await context.store.sites.all()) {
    const { line } = await crossingOf(context, id, { reach: 'internet' }, context.wallMs());
    await weekFigures(context, id, 'internet', versions);
    if (line !== null) await weekOfPlan(context, id, line.id, versions);
  }
}
