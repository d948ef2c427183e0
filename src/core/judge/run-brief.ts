import { flagsFor, type FitnessCode } from './fitness/fitness-flag';
import type { Interval } from '../stats/block-bootstrap';
import { yardstickBps } from './yardstick';
import type { RunReport } from './run-report';

/** What lists and sets need of a report, without its series, summaries and words. Rates in bits per second. */
export interface RunBrief {
  readonly flags: readonly FitnessCode[];
  /** Those that hold for a direction; absent in briefs of before. */
  readonly flagsDown?: readonly FitnessCode[] | undefined;
  readonly flagsUp?: readonly FitnessCode[] | undefined;
  /** Where a direction is a range and not one figure: its ends, bits per second. Absent or null: it is one. */
  readonly downRangeBps?: Interval | null | undefined;
  readonly upRangeBps?: Interval | null | undefined;
  /** Null where there is no yardstick. */
  readonly downYardstickBps: number | null;
  readonly upYardstickBps: number | null;
  /** Lower ends of the 95 % intervals: what the path is proven to have carried. Absent in briefs of before. */
  readonly downLowBps?: number | null | undefined;
  readonly upLowBps?: number | null | undefined;
  /** What load in each direction added to the delay, ms. */
  readonly addedDownMs?: number | null | undefined;
  readonly addedUpMs?: number | null | undefined;
  /** Share of what was sent down that the peer's kernel sent again; null: nobody counted. */
  readonly resentShare?: number | null | undefined;
  /** Of the idle path, ms. */
  readonly jitterMs?: number | null | undefined;
  /** Round trip, a share from 0 to 1. */
  readonly lossShare?: number | null | undefined;
}

export function briefOf({ fitness, down, up, resentShare, idleDelay, loss }: RunReport): RunBrief {
  return {
    flags: [...new Set(fitness.map(({ code }) => code))],
    flagsDown: flagsFor(fitness, 'down'),
    flagsUp: flagsFor(fitness, 'up'),
    downRangeBps: down.rate?.rangeBps ?? null,
    upRangeBps: up.rate?.rangeBps ?? null,
    downYardstickBps: yardstickBps(down.yardstick),
    upYardstickBps: yardstickBps(up.yardstick),
    downLowBps: down.rate?.intervalBps?.low ?? down.rate?.steadyBps ?? null,
    upLowBps: up.rate?.intervalBps?.low ?? up.rate?.steadyBps ?? null,
    addedDownMs: down.addedMs,
    addedUpMs: up.addedMs,
    resentShare: resentShare ?? null,
    jitterMs: idleDelay?.jitterMs ?? null,
    lossShare: loss?.lossRatio ?? null,
  };
}
