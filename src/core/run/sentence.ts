import type { Plan } from '../judge/plan';
import { addedDelayWords, delayWords, nominalRateFigure, rateFigure, rateWords } from '../units/quantity-words';
import type { RunConditions } from './run-conditions';
import type { DirectionReport, RunReport } from './run-report';

/** The result in plain sentences, numbers first. Each part may stand alone. */
export interface RunSentence {
  readonly figures: string;
  readonly held: string;
  readonly delay: string;
}

function figuresOf({ down, up, idleDelay }: RunReport): string {
  if (down.rate === null && up.rate === null)
    return idleDelay === null ? 'Nothing was measured.' : 'Only the delay was measured.';
  if (down.rate === null) return `${rateWords(up.rate!.steadyBps)} up. Download was not measured.`;
  if (up.rate === null) return `${rateWords(down.rate.steadyBps)} down. Upload was not measured.`;
  return `${rateWords(down.rate.steadyBps)} down and ${rateFigure(up.rate.steadyBps)} up.`;
}

function verdictWords({ verdict }: DirectionReport): string {
  if (verdict.word === 'no verdict') return 'no verdict';
  return verdict.edgeOf === null ? verdict.word : `${verdict.word}, on the edge of ${verdict.edgeOf}`;
}

function bothWords(down: DirectionReport, up: DirectionReport): string {
  const [downWords, upWords] = [verdictWords(down), verdictWords(up)];
  return downWords === upWords ? `${downWords} both ways` : `${downWords} down, ${upWords} up`;
}

function planFigures(plan: Plan): string {
  return `${nominalRateFigure(plan.downBps)} down and ${nominalRateFigure(plan.upBps)} up`;
}

function heldOf({ down, up, fitness }: RunReport, { reach, plan }: RunConditions): string {
  if (fitness.some((flag) => flag.code === 'same-machine'))
    return 'The device and the peer are one machine, so this says nothing about the network.';
  if (down.rate === null && up.rate === null) return 'There is nothing to hold against the yardstick.';
  const judged = bothWords(down, up);
  if (reach === 'local') {
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
  return `The plan is ${planFigures(plan)}: ${judged}.`;
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
