import { ceilingOfLink } from '../ceiling/link-ceiling';
import type { LinkCeiling } from '../ceiling/link-ceiling-type';
import { lowerCeiling } from '../ceiling/lower-ceiling';
import { rateBloat, type BloatRating } from './bloat-rating';
import {
  addedDelayMs,
  summarizeDelay,
  workingRoundTripsPerMinute,
  type DelaySummary,
} from '../measure/delay/delay-summary';
import { echoedBetween } from '../measure/delay/probe-series';
import { queueOnsetMs } from '../measure/delay/queue-onset';
import { fitnessOf } from './fitness/fitness';
import { flagsFor, type FitnessFlag } from './fitness/fitness-flag';
import { doubtfulLink } from './fitness/link-flags';
import { planPayloadBps, USUAL_FULL_FROM, type Direction, type Plan } from '../domain/plan';
import { leastAnswerOf, type LeastAnswer } from './least-answer';
import { planAnswerOf, type AnsweredDirection, type PlanAnswer } from './plan-answer';
import { suitabilityOf, type Suitability } from './suitability';
import type { Reach } from '../domain/reach';
import { verdictOf, worstVerdict, type NoVerdict, type Verdict, type VerdictWord } from './verdict';
import { yardstickBps, yardstickOf, type Yardstick } from './yardstick';
import { oneWayLoss, summarizeLoss, type LossSummary } from '../measure/loss/loss-summary';
import { resentShareOf } from '../measure/loss/resent-share';
import { finalBytes, type CounterSeries } from '../measure/rate/counter-series';
import { estimateRate, isOneFigure, type RateEstimate } from '../measure/rate/rate-estimate';
import { PACED_BYTES, RUN_PROFILES } from '../run/run-profiles';
import type { RunConditions } from '../run/run-conditions';
import type { ClientTrouble } from '../run/client-trouble';
import { phaseSpan, type RunSamples } from '../run/run-samples';
import type { Phase } from '../run/phase';

/** Raised whenever the same samples would give other figures; stored with every run. */
export const METHOD_VERSION = 7;

/** One direction of a run, measured and judged. */
export interface DirectionReport {
  readonly rate: RateEstimate | null;
  readonly loadedDelay: DelaySummary | null;
  readonly addedMs: number | null;
  readonly workingRoundTrips: number | null;
  /** How long after the load began the queue began to fill, ms; null when it stayed empty. */
  readonly queueOnsetMs: number | null;
  readonly bytes: number | null;
  readonly yardstick: Yardstick;
  readonly verdict: Verdict;
  /** Measured / contracted with its 95 % interval; null inside the office, through a tunnel, without a plan or a figure. */
  readonly shareOfPlan: { readonly share: number; readonly low: number | null; readonly high: number | null } | null;
  /** Against the least that the contract names; null where it names none. Absent in reports of before. */
  readonly least?: LeastAnswer | null | undefined;
}

/** Both directions at once. */
export interface BothReport {
  readonly down: RateEstimate | null;
  readonly up: RateEstimate | null;
  readonly delay: DelaySummary | null;
  readonly addedMs: number | null;
}

/** Everything that is computed from one run's samples and conditions. */
export interface RunReport {
  readonly methodVersion: number;
  readonly idleDelay: DelaySummary | null;
  /** Smallest step of the client's clock, ms: it tells no shorter delay and no less jitter. Null or absent: not known. */
  readonly clockStepMs?: number | null | undefined;
  readonly down: DirectionReport;
  readonly up: DirectionReport;
  /** Null when the run's profile does not have it, or it was not reached. */
  readonly both: BothReport | null;
  /** Null: not measured. */
  readonly loss: LossSummary | null;
  /** The same while UDP was sent at a chosen rate; null when it was not. */
  readonly paced: (LossSummary & { readonly sentBps: number }) | null;
  readonly verdict: VerdictWord;
  /** Of the worst load. */
  readonly bloat: {
    readonly rating: BloatRating;
    readonly addedMs: number;
    readonly direction: Direction | 'both';
  } | null;
  /** Share of what was sent down that the peer's kernel sent again; null or absent: nobody counted. */
  readonly resentShare?: number | null | undefined;
  /** What the client tried and could not do; absent in reports of before. */
  readonly troubles?: readonly ClientTrouble[] | undefined;
  readonly suitability: readonly Suitability[];
  readonly fitness: readonly FitnessFlag[];
  readonly planAnswer: PlanAnswer | null;
}

function shareOfPlan(rate: RateEstimate | null, plan: Plan | null, direction: Direction, reach: Reach) {
  if (rate === null || plan === null || reach === 'local' || plan.slowerEnd !== undefined) return null;
  const promised = planPayloadBps(plan, direction);
  return {
    share: rate.steadyBps / promised,
    low: rate.intervalBps === null ? null : rate.intervalBps.low / promised,
    high: rate.intervalBps === null ? null : rate.intervalBps.high / promised,
  };
}

interface LoadOptions {
  readonly samples: RunSamples;
  readonly idleDelay: DelaySummary | null;
  readonly phase: Phase;
}

/** The rate of a series; `offsetMs` turns its clock into the run's. */
function rateOf(series: CounterSeries | null, offsetMs: number, { samples, idleDelay, phase }: LoadOptions) {
  const changes = samples.streams.filter((change) => change.phase === phase);
  return estimateRate(series, {
    idleRttMs: idleDelay?.medianMs ?? null,
    rules: RUN_PROFILES[samples.profile].steady,
    // The first entry is the start; later ones added a stream.
    changesMs: changes.slice(1).map(({ atMs }) => atMs - offsetMs),
    streams: changes.at(-1)?.streams ?? null,
  });
}

function delayDuring(samples: RunSamples, rate: RateEstimate | null, offsetMs: number | null): DelaySummary | null {
  if (rate === null || offsetMs === null) return null;
  return summarizeDelay(echoedBetween(samples.probes, rate.countedFromMs + offsetMs, rate.countedToMs + offsetMs));
}

/** Both directions as measured, before anything is judged. */
function measuredRates(options: Omit<LoadOptions, 'phase'>) {
  const { samples } = options;
  return {
    down: rateOf(samples.download, 0, { ...options, phase: 'download' }),
    up: rateOf(samples.upload, samples.peerClockOffsetMs ?? 0, { ...options, phase: 'upload' }),
  };
}

/** What takes away any verdict, the gravest first; null when nothing does. */
function voidedBy(fitness: readonly FitnessFlag[]): NoVerdict | null {
  return (
    (['same-machine', 'not-credible', 'shared-on-purpose', 'single-stream'] as const).find((code) =>
      fitness.some((flag) => flag.code === code),
    ) ?? null
  );
}

interface Judging {
  readonly conditions: RunConditions;
  /** Null: not known, or not to be believed. */
  readonly ceiling: LinkCeiling | null;
  readonly voided: NoVerdict | null;
}

function directionReport(
  direction: Direction,
  rate: RateEstimate | null,
  { samples, idleDelay }: Omit<LoadOptions, 'phase'>,
  { conditions, ceiling, voided }: Judging,
) {
  const { reach, plan } = conditions;
  const phase = direction === 'down' ? 'download' : 'upload';
  const offsetMs = direction === 'down' ? 0 : samples.peerClockOffsetMs;
  const loadedDelay = delayDuring(samples, rate, offsetMs);
  const [idle, loaded] = [phaseSpan(samples, 'idle'), phaseSpan(samples, phase)];
  const yardstick = yardstickOf({ reach, direction, plan, ceiling });
  const onePlan = reach === 'internet' && plan?.slowerEnd === undefined ? plan : null;
  return {
    rate,
    loadedDelay,
    addedMs: addedDelayMs(idleDelay, loadedDelay),
    workingRoundTrips: workingRoundTripsPerMinute(loadedDelay),
    queueOnsetMs:
      idle === null || loaded === null ? null : queueOnsetMs(samples.probes, idle, loaded.fromMs, loaded.toMs),
    bytes: finalBytes(samples[phase]),
    yardstick,
    verdict: verdictOf(
      rate,
      {
        yardstickBps: yardstickBps(yardstick),
        planBps: reach === 'local' || plan === null ? null : planPayloadBps(plan, direction),
        fullFrom: plan?.fullFrom ?? USUAL_FULL_FROM,
      },
      voided ?? (rate !== null && !isOneFigure(rate) ? 'range' : null),
    ),
    shareOfPlan: shareOfPlan(rate, plan, direction, reach),
    least: voided === null ? leastAnswerOf(rate, onePlan, direction) : null,
  } satisfies DirectionReport;
}

function bothReport(options: Omit<LoadOptions, 'phase'>): BothReport | null {
  const { samples, idleDelay } = options;
  if (samples.bothDown === null && samples.bothUp === null) return null;
  const down = rateOf(samples.bothDown, 0, { ...options, phase: 'both' });
  const up = rateOf(samples.bothUp, samples.peerClockOffsetMs ?? 0, { ...options, phase: 'both' });
  const delay = delayDuring(samples, down, 0);
  return { down, up, delay, addedMs: addedDelayMs(idleDelay, delay) };
}

/** The rate is what was really sent: packets of 1200 bytes over the length of the phase. */
function pacedReport(samples: RunSamples): RunReport['paced'] {
  const span = phaseSpan(samples, 'paced');
  const summary = span === null ? null : summarizeLoss(samples.udp, span.fromMs, span.toMs);
  if (span === null || summary === null || span.toMs <= span.fromMs) return null;
  return { ...summary, sentBps: (summary.sent * PACED_BYTES * 8000) / (span.toMs - span.fromMs) };
}

function worstBloat(down: DirectionReport, up: DirectionReport, both: BothReport | null): RunReport['bloat'] {
  const measured = (
    [
      ['down', down.addedMs],
      ['up', up.addedMs],
      ['both', both?.addedMs ?? null],
    ] as const
  )
    .flatMap(([direction, addedMs]) => (addedMs === null ? [] : [{ direction, addedMs }]))
    .sort((a, b) => b.addedMs - a.addedMs);
  const worst = measured[0];
  const rating = rateBloat(worst?.addedMs ?? null);
  return worst === undefined || rating === null ? null : { ...worst, rating };
}

function worst(figures: readonly (number | null | undefined)[]): number | null {
  const known = figures.filter((figure): figure is number => figure !== null && figure !== undefined);
  return known.length === 0 ? null : Math.max(...known);
}

function answered(direction: Direction, rate: RateEstimate | null, fitness: readonly FitnessFlag[]): AnsweredDirection {
  return { rate, oneFigure: rate !== null && isOneFigure(rate), flags: flagsFor(fitness, direction) };
}

/** What the link at the other end can carry, where a machine of ours stands there. */
function farCeilingOf({ farLink = null, ipVersion }: RunConditions): LinkCeiling | null {
  return farLink === null ? null : ceilingOfLink(farLink, ipVersion);
}

const STEADY_FROM = 0.97;

/**
 * Turns raw samples into figures and judges them. The same function serves the live page, the record and every
 * recomputation; it never invents a figure: what was not measured stays null.
 */
export function reportOf(samples: RunSamples, conditions: RunConditions): RunReport {
  const idle = phaseSpan(samples, 'idle');
  const idleDelay = idle === null ? null : summarizeDelay(echoedBetween(samples.probes, idle.fromMs, idle.toMs));
  const rates = measuredRates({ samples, idleDelay });
  const own = ceilingOfLink(conditions.link, conditions.ipVersion);
  const named = conditions.reach === 'between' ? lowerCeiling(own, farCeilingOf(conditions)) : own;
  const input = { conditions, samples, ceiling: named, ...rates };
  const fitness = fitnessOf(input);
  const ceiling = doubtfulLink(input) === null ? named : null;
  const judging = { conditions, ceiling, voided: voidedBy(fitness) };
  const down = directionReport('down', rates.down, { samples, idleDelay }, judging);
  const up = directionReport('up', rates.up, { samples, idleDelay }, judging);
  const both = bothReport({ samples, idleDelay });
  const loss = summarizeLoss(samples.udp);
  const paced = pacedReport(samples);
  const loads = [down.loadedDelay, up.loadedDelay, both?.delay];
  return {
    methodVersion: METHOD_VERSION,
    idleDelay,
    clockStepMs: samples.client?.clockStepMs ?? null,
    down,
    up,
    both,
    loss,
    paced,
    verdict: worstVerdict([down.verdict, up.verdict]),
    bloat: worstBloat(down, up, both),
    resentShare: conditions.practice ? null : resentShareOf(samples.kernel),
    troubles: samples.client?.troubles ?? [],
    suitability: suitabilityOf({
      downBps: down.rate?.steadyBps ?? null,
      upBps: up.rate?.steadyBps ?? null,
      loadedRttMs: worst(loads.map((delay) => delay?.medianMs)),
      jitterMs: worst(loads.map((delay) => delay?.jitterMs)),
      lossRatio: loss === null ? null : oneWayLoss(loss),
      // What was not measured is not unsteady.
      steady: [down.rate, up.rate].every((rate) => rate === null || (rate.settled && rate.steadiness >= STEADY_FROM)),
      wired: conditions.link.medium === 'wired',
      upAddedMs: up.addedMs,
    }),
    fitness,
    planAnswer: planAnswerOf(
      conditions.reach,
      conditions.plan,
      answered('down', down.rate, fitness),
      answered('up', up.rate, fitness),
    ),
  };
}
