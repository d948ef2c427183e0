import {
  median,
  planPayloadBps,
  rateBloat,
  USUAL_FULL_FROM,
  verdictOf,
  worstVerdict,
  type BloatRating,
  type Direction,
  type Plan,
  type Reach,
  type VerdictWord,
} from '@/core';
import type { ConsoleContext } from '../console/console-context';

const WEEK_MS = 7 * 24 * 3600_000;

/**
 * What one way of a site gave over the last seven days: the medians of all runs that are evidence of their path, without
 * those against a web server, which may have been the limit, held
 * against the plan that is in force now. The one definition for the offices beside each other and for the segments of the
 * board. Rates in bits per second, delays in ms.
 */
export interface WeekOfRuns {
  readonly count: number;
  readonly downBps: number | null;
  readonly upBps: number | null;
  readonly addedMs: number | null;
  readonly rating: BloatRating | null;
  readonly yardstickDownBps: number | null;
  readonly yardstickUpBps: number | null;
  readonly verdict: VerdictWord;
  readonly newest: { readonly runId: string; readonly startedAtMs: number } | null;
}

export async function weekOfRuns(
  { store, wallMs }: ConsoleContext,
  siteId: string,
  reach: Reach,
  plan: Plan | null,
): Promise<WeekOfRuns> {
  const found = await store.runs.figuresSince(siteId, reach, wallMs() - WEEK_MS);
  const promised = (direction: Direction) => (plan === null ? null : planPayloadBps(plan, direction));
  const [downBps, upBps, addedMs] = [median(found.downBps), median(found.upBps), median(found.addedMs)];
  const judged = (rateBps: number | null, direction: Direction) => {
    const rate = rateBps === null ? null : { steadyBps: rateBps, intervalBps: null };
    const planBps = promised(direction);
    return verdictOf(rate, { yardstickBps: planBps, planBps, fullFrom: plan?.fullFrom ?? USUAL_FULL_FROM }, null);
  };
  return {
    ...{ count: found.count, downBps, upBps, addedMs, rating: rateBloat(addedMs) },
    yardstickDownBps: promised('down'),
    yardstickUpBps: promised('up'),
    verdict: worstVerdict([judged(downBps, 'down'), judged(upBps, 'up')]),
    newest: found.newest,
  };
}
