import type { Link } from '../ceiling/link';
import { ceilingOfLink } from '../ceiling/link-ceiling';
import { rateBloat, type BloatRating } from '../delay/bloat-rating';
import { addedDelayMs, summarizeDelay, workingRoundTripsPerMinute, type DelaySummary } from '../delay/delay-summary';
import { echoedBetween } from '../delay/probe-series';
import { fitnessOf, type FitnessFlag } from '../judge/fitness';
import { planPayloadBps, USUAL_FULL_FROM, type Direction, type Plan } from '../judge/plan';
import { planAnswerOf, type PlanAnswer } from '../judge/plan-answer';
import { verdictOf, worstVerdict, type Verdict, type VerdictWord } from '../judge/verdict';
import { yardstickOf, type Reach, type Yardstick } from '../judge/yardstick';
import { finalBytes } from '../rate/counter-series';
import { estimateRate, type RateEstimate } from '../rate/rate-estimate';
import { phaseSpan, type RunSamples } from './run-samples';

/** Raised whenever the same samples would give other figures; stored with every run. */
export const METHOD_VERSION = 1;

/** What was the case when the run was made. */
export interface RunConditions {
  readonly reach: Reach;
  readonly link: Link;
  /** The plan in force on that day; null when none is known. */
  readonly plan: Plan | null;
  /** Whether the peer saw the client come from its own machine, with no practice line between. */
  readonly sameMachine: boolean;
  /** Whether a practice line stood in for the provider's line. */
  readonly practice: boolean;
  readonly ipVersion: 4 | 6;
  readonly pageHiddenMs: number;
}

/** One direction of a run, measured and judged. */
export interface DirectionReport {
  readonly rate: RateEstimate | null;
  readonly loadedDelay: DelaySummary | null;
  readonly addedMs: number | null;
  readonly workingRoundTrips: number | null;
  readonly bytes: number | null;
  readonly yardstick: Yardstick;
  readonly verdict: Verdict;
  /** Measured / contracted with its 95 % interval; null inside the office, without a plan or without a figure. */
  readonly shareOfPlan: { readonly share: number; readonly low: number | null; readonly high: number | null } | null;
}

/** Everything that is computed from one run's samples and conditions. */
export interface RunReport {
  readonly methodVersion: number;
  readonly idleDelay: DelaySummary | null;
  readonly down: DirectionReport;
  readonly up: DirectionReport;
  readonly verdict: VerdictWord;
  /** Of the worse direction. */
  readonly bloat: { readonly rating: BloatRating; readonly addedMs: number; readonly direction: Direction } | null;
  readonly fitness: readonly FitnessFlag[];
  readonly planAnswer: PlanAnswer | null;
}

function shareOfPlan(rate: RateEstimate | null, plan: Plan | null, direction: Direction, reach: Reach) {
  if (rate === null || plan === null || reach === 'local') return null;
  const promised = planPayloadBps(plan, direction);
  return {
    share: rate.steadyBps / promised,
    low: rate.intervalBps === null ? null : rate.intervalBps.low / promised,
    high: rate.intervalBps === null ? null : rate.intervalBps.high / promised,
  };
}

function directionReport(
  direction: Direction,
  samples: RunSamples,
  conditions: RunConditions,
  idleDelay: DelaySummary | null,
): DirectionReport {
  const { reach, plan, link, ipVersion, sameMachine } = conditions;
  const counters = direction === 'down' ? samples.download : samples.upload;
  const rate = estimateRate(counters, idleDelay?.medianMs ?? null);
  const offsetMs = direction === 'down' ? 0 : samples.peerClockOffsetMs;
  const loadedDelay =
    rate === null || offsetMs === null
      ? null
      : summarizeDelay(echoedBetween(samples.probes, rate.countedFromMs + offsetMs, rate.countedToMs + offsetMs));
  const yardstick = yardstickOf({ reach, direction, plan, ceiling: ceilingOfLink(link, ipVersion) });
  return {
    rate,
    loadedDelay,
    addedMs: addedDelayMs(idleDelay, loadedDelay),
    workingRoundTrips: workingRoundTripsPerMinute(loadedDelay),
    bytes: finalBytes(counters),
    yardstick,
    verdict: verdictOf(rate, yardstick, plan?.fullFrom ?? USUAL_FULL_FROM, sameMachine),
    shareOfPlan: shareOfPlan(rate, plan, direction, reach),
  };
}

function worseBloat(down: DirectionReport, up: DirectionReport): RunReport['bloat'] {
  const measured = (
    [
      ['down', down],
      ['up', up],
    ] as const
  )
    .flatMap(([direction, { addedMs }]) => (addedMs === null ? [] : [{ direction, addedMs }]))
    .sort((a, b) => b.addedMs - a.addedMs);
  const worst = measured[0];
  const rating = rateBloat(worst?.addedMs ?? null);
  return worst === undefined || rating === null ? null : { ...worst, rating };
}

/**
 * Turns raw samples into figures and judges them. The same function serves the live page, the record and every
 * recomputation; it never invents a figure: what was not measured stays null.
 */
export function reportOf(samples: RunSamples, conditions: RunConditions): RunReport {
  const idle = phaseSpan(samples, 'idle');
  const idleDelay = idle === null ? null : summarizeDelay(echoedBetween(samples.probes, idle.fromMs, idle.toMs));
  const down = directionReport('down', samples, conditions, idleDelay);
  const up = directionReport('up', samples, conditions, idleDelay);
  const fitness = fitnessOf({
    ...conditions,
    ceiling: ceilingOfLink(conditions.link, conditions.ipVersion),
    down: down.rate,
    up: up.rate,
  });
  return {
    methodVersion: METHOD_VERSION,
    idleDelay,
    down,
    up,
    verdict: worstVerdict([down.verdict, up.verdict]),
    bloat: worseBloat(down, up),
    fitness,
    planAnswer: planAnswerOf(conditions.reach, conditions.plan, down.rate, up.rate, fitness),
  };
}
