import {
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
import { weekFigures, type RunVersions, type WeekFigures } from '../runs/kept-weeks';

/**
 * What one way of a site gave over the last seven days: the medians of all runs that are evidence of their path, without
 * those against a web server, which may have been the limit, held
 * against the plan that is in force now. The one definition for the offices beside each other and for the segments of the
 * board. Rates in bits per second, delays in ms.
 */
export interface WeekOfRuns extends WeekFigures {
  readonly rating: BloatRating | null;
  readonly yardstickDownBps: number | null;
  readonly yardstickUpBps: number | null;
  readonly verdict: VerdictWord;
}

export async function weekOfRuns(
  context: ConsoleContext,
  siteId: string,
  reach: Reach,
  plan: Plan | null,
  versions: RunVersions | null = null,
): Promise<WeekOfRuns> {
  const week = await weekFigures(context, siteId, reach, versions);
  const promised = (direction: Direction) => (plan === null ? null : planPayloadBps(plan, direction));
  const judged = (rateBps: number | null, direction: Direction) => {
    const rate = rateBps === null ? null : { steadyBps: rateBps, intervalBps: null };
    const planBps = promised(direction);
    return verdictOf(rate, { yardstickBps: planBps, planBps, fullFrom: plan?.fullFrom ?? USUAL_FULL_FROM }, null);
  };
  return {
    ...week,
    rating: rateBloat(week.addedMs),
    yardstickDownBps: promised('down'),
    yardstickUpBps: promised('up'),
    verdict: worstVerdict([judged(week.downBps, 'down'), judged(week.upBps, 'up')]),
  };
}
