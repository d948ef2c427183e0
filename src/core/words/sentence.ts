import type { Plan } from '../domain/plan';
import type { RateEstimate } from '../measure/rate/rate-estimate';
import { addedDelayWords, delayWords, nominalRateFigure, rateFigure } from './quantity-words';
import type { RunConditions } from '../run/run-conditions';
import type { DirectionReport, RunReport } from '../judge/run-report';

/** The result in plain sentences, numbers first. Each part may stand alone. */
export interface RunSentence {
  readonly figures: string;
  readonly held: string;
  readonly delay: string;
}

/** One figure, or both ends where it is none: "486", "8.20 to 17.9". */
function figureOrRange(rate: RateEstimate): string {
  const range = rate.rangeBps ?? null;
  return range === null ? rateFigure(rate.steadyBps) : `${rateFigure(range.low)} to ${rateFigure(range.high)}`;
}

/** What the line gave first, where it then changed: " For its first 4 s it gave 191 down." */
function earlierWords({ down, up }: RunReport): string {
  return (
    [
      ['down', down.rate],
      ['up', up.rate],
    ] as const
  )
    .flatMap(([direction, rate]) => {
      const [first] = rate?.earlier ?? [];
      if (rate === null || first === undefined) return [];
      const seconds = Math.round((first.toMs - rate.startedMs) / 1000);
      return [` For the first ${seconds} s it gave ${rateFigure(first.bps)} ${direction}.`];
    })
    .join('');
}

function figuresOf(report: RunReport): string {
  const { down, up, idleDelay } = report;
  if (down.rate === null && up.rate === null)
    return idleDelay === null ? 'Nothing was measured.' : 'Only the delay was measured.';
  if (down.rate === null) return `${figureOrRange(up.rate!)} Mb/s up. Download was not measured.`;
  if (up.rate === null) return `${figureOrRange(down.rate)} Mb/s down. Upload was not measured.`;
  return `${figureOrRange(down.rate)} Mb/s down and ${figureOrRange(up.rate)} up.${earlierWords(report)}`;
}

function verdictWords({ verdict }: DirectionReport): string {
  if (verdict.word === 'no verdict')
    return verdict.why === 'range' ? 'no verdict, for it is no one figure' : 'no verdict';
  return verdict.edgeOf === null ? verdict.word : `${verdict.word}, on the edge of ${verdict.edgeOf}`;
}

function bothWords(down: DirectionReport, up: DirectionReport): string {
  const [downWords, upWords] = [verdictWords(down), verdictWords(up)];
  return downWords === upWords ? `${downWords} both ways` : `${downWords} down, ${upWords} up`;
}

/** " Down is below the 300 that the contract names at least." */
function leastWords({ down, up }: RunReport): string {
  return (
    [
      ['Down', down.least ?? null],
      ['Up', up.least ?? null],
    ] as const
  )
    .flatMap(([direction, least]) => {
      if (least === null || least.word === 'above') return [];
      const named = `the ${nominalRateFigure(least.leastBps)} that the contract names at least`;
      if (least.onTheEdge) return [` ${direction} is on the edge of ${named}.`];
      return [
        ` ${direction} is ${least.word === 'below' ? 'below' : 'above'} ${named}${least.word === 'below' ? '' : ', and below what it advertises'}.`,
      ];
    })
    .join('');
}

function planFigures(plan: Plan): string {
  return `${nominalRateFigure(plan.downBps)} down and ${nominalRateFigure(plan.upBps)} up`;
}

function heldOf(report: RunReport, { reach, plan }: RunConditions): string {
  const { down, up, fitness } = report;
  if (fitness.some((flag) => flag.code === 'same-machine'))
    return 'The device and the peer are one machine, so this says nothing about the network.';
  if (fitness.some((flag) => flag.code === 'not-credible'))
    return 'What was handed in cannot be, so there is no verdict.';
  if (fitness.some((flag) => flag.code === 'shared-on-purpose'))
    return 'That was its share: it ran together with others on purpose.';
  if (down.rate === null && up.rate === null) return 'There is nothing to hold against the yardstick.';
  const judged = bothWords(down, up);
  if (reach === 'local') {
    if (down.yardstick.status === 'unknown' && fitness.some((flag) => flag.code === 'link-doubtful'))
      return 'That is more than the link can carry as it was described, so the description is wrong.';
    if (down.yardstick.status === 'unknown')
      return 'What the link can carry is not known, so there is nothing to hold this against.';
    return `The cable can show ${rateFigure(down.yardstick.rateBps)}: ${judged}.`;
  }
  if (plan?.slowerEnd !== undefined) return `The slower end of the tunnel gives ${planFigures(plan)}: ${judged}.`;
  if (plan === null) return 'No plan is known for this line: enter it in the set-up to have this judged.';
  const slowCable = fitness.find((flag) => flag.code === 'link-below-plan');
  if (slowCable !== undefined) {
    const ceilings = [down, up].flatMap(({ yardstick }) =>
      yardstick.status === 'known' && yardstick.source === 'link' ? [yardstick.rateBps] : [],
    );
    const shows = ceilings.length === 0 ? '' : ` This cable can show ${rateFigure(ceilings[0]!)} at best:`;
    return `The plan is ${planFigures(plan)}.${shows} ${judged}, but it cannot tell whether the plan is met.`;
  }
  return `The plan is ${planFigures(plan)}: ${judged}.${leastWords(report)}`;
}

function delayOf({ idleDelay, bloat, clockStepMs = null }: RunReport): string {
  if (idleDelay === null) return 'Delay was not measured.';
  const idle = `${delayWords(idleDelay.medianMs, clockStepMs)} of delay when idle`;
  if (bloat === null) return `${idle}; under load it was not measured.`;
  const when = { down: 'while downloading', up: 'while uploading', both: 'while loaded both ways' }[bloat.direction];
  if (bloat.rating === 'crisp')
    return `${idle}, and it hardly grows under load (${addedDelayWords(bloat.addedMs)}): crisp.`;
  return `${idle}, ${addedDelayWords(bloat.addedMs)} ${when}: ${bloat.rating}.`;
}

/** Puts a report into words. Unknown figures are said to be unmeasured. */
export function sentenceOf(report: RunReport, conditions: RunConditions): RunSentence {
  return { figures: figuresOf(report), held: heldOf(report, conditions), delay: delayOf(report) };
}
