import type { Plan } from '../domain/plan';
import type { RateEstimate } from '../measure/rate/rate-estimate';
import { addedDelayWords, delayWords, nominalRateFigure, rateFigure, rateWords, shareWords } from './quantity-words';
import type { RunConditions } from '../run/run-conditions';
import type { DirectionReport, RunReport } from '../judge/run-report';

/** The result in plain sentences, numbers first. Each part may stand alone. */
export interface RunSentence {
  readonly figures: string;
  readonly held: string;
  readonly delay: string;
  /** Which of the two is worse, and so is said first. */
  readonly lead: 'held' | 'delay';
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

/** A verdict as somebody says it who has never read ours: "as paid for", "61 % of it". */
function verdictWords({ verdict }: DirectionReport, full: string): string {
  switch (verdict.word) {
    case 'no verdict':
      return verdict.why === 'range' ? 'no verdict, for it is no one figure' : 'no verdict';
    case 'full':
      return verdict.edgeOf === null ? full : `just about ${full}`;
    case 'capped':
      return 'all that this link carries';
    case 'thin':
      return verdict.edgeOf === 'full'
        ? `just under it (${shareWords(verdict.share)})`
        : `${shareWords(verdict.share)} of it`;
    case 'starved':
      return `only ${shareWords(verdict.share)} of it`;
  }
}

function bothWords(down: DirectionReport, up: DirectionReport, full: string): string {
  const [downWords, upWords] = [verdictWords(down, full), verdictWords(up, full)];
  if (up.rate === null) return `${downWords} down`;
  if (down.rate === null) return `${upWords} up`;
  return downWords === upWords ? `${downWords} both ways` : `${downWords} down, ${upWords} up`;
}

/** Ways that came out short while others used the line, and how much they used, bits per second. */
function othersOf({ fitness, ...report }: RunReport): readonly { readonly way: 'down' | 'up'; readonly bps: number }[] {
  const isShort = (way: 'down' | 'up') => ['thin', 'starved'].includes(report[way].verdict.word);
  return fitness.flatMap((flag) => {
    if ('written' in flag || flag.code !== 'line-in-use') return [];
    const { direction: way, facts } = flag;
    return way !== undefined && isShort(way) ? [{ way, bps: facts.othersBps }] : [];
  });
}

/** " Others used 82.6 Mb/s of it up meanwhile: that way nothing can be said about the plan." */
function othersWords(report: RunReport): string {
  const others = othersOf(report);
  if (others.length === 0) return '';
  const used = others.map(({ way, bps }) => `${rateWords(bps)} of it ${way}`).join(' and ');
  const measured = [report.down, report.up].filter(({ rate }) => rate !== null).length;
  return ` Others used ${used} meanwhile: ${others.length < measured ? 'that way ' : ''}nothing can be said about the plan.`;
}

/** " Down is below the 300 that the contract names at least." */
function leastWords(report: RunReport): string {
  const taken = othersOf(report).map(({ way }) => way);
  return (
    [
      ['Down', taken.includes('down') ? null : (report.down.least ?? null)],
      ['Up', taken.includes('up') ? null : (report.up.least ?? null)],
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
  if (fitness.some((flag) => flag.code === 'single-stream'))
    return 'That is what one connection gets, as one copy has it; what the way can carry takes several.';
  if (down.rate === null && up.rate === null) return 'There is nothing to hold against the yardstick.';
  const judged = bothWords(
    down,
    up,
    reach === 'local' || reach === 'between' || plan?.slowerEnd !== undefined ? 'as it should be' : 'as paid for',
  );
  if (reach === 'local' || (reach === 'between' && plan === null)) {
    if (down.yardstick.status === 'unknown' && fitness.some((flag) => flag.code === 'link-doubtful'))
      return 'That is more than the link can carry as it was described, so the description is wrong.';
    if (down.yardstick.status === 'unknown')
      return 'What the link can carry is not known, so there is nothing to hold this against.';
    const shows = reach === 'between' ? 'The slower end’s link can show' : 'The cable can show';
    return `${shows} ${rateFigure(down.yardstick.rateBps)}: ${judged}.`;
  }
  if (plan?.slowerEnd !== undefined)
    return `The slower end of ${reach === 'between' ? 'both lines' : 'the tunnel'} gives ${planFigures(plan)}: ${judged}.`;
  if (plan === null) return 'No plan is known for this line: enter it in the set-up to have this judged.';
  const slowCable = fitness.find((flag) => flag.code === 'link-below-plan');
  if (slowCable !== undefined) {
    const ceilings = [down, up].flatMap(({ yardstick }) =>
      yardstick.status === 'known' && yardstick.source === 'link' ? [yardstick.rateBps] : [],
    );
    const shows = ceilings.length === 0 ? '' : ` This cable can show ${rateFigure(ceilings[0]!)} at best:`;
    return `The plan is ${planFigures(plan)}.${shows} ${judged}, so it cannot tell whether the plan is met.`;
  }
  const held = `The plan is ${planFigures(plan)}: ${judged}.${leastWords(report)}${othersWords(report)}`;
  const isShort = [down.verdict.word, up.verdict.word].some((word) => word === 'thin' || word === 'starved');
  return isShort && fitness.some((flag) => flag.code === 'far-end-not-ours')
    ? `${held} The web server that it came from may be the limit, so it cannot tell whether the plan is met.`
    : held;
}

function delayOf({ idleDelay, bloat, clockStepMs = null }: RunReport): string {
  if (idleDelay === null) return 'Delay was not measured.';
  const idle = `${delayWords(idleDelay.medianMs, clockStepMs)} of delay when idle`;
  if (bloat === null) return `${idle}; under load it was not measured.`;
  const added = addedDelayWords(bloat.addedMs);
  if (bloat.rating === 'crisp' || bloat.rating === 'firm')
    return `${idle}, and it hardly grows while the line is full (${added}).`;
  const who = { down: 'downloads', up: 'uploads', both: 'uploads and downloads' }[bloat.direction];
  return `${DELAY_LEADS[bloat.rating]} somebody ${who}, everything waits ${delayWords(bloat.addedMs)} longer (${idle}): ${SUFFERS[bloat.rating]}.`;
}

const DELAY_LEADS = { soft: 'While', soggy: 'But while', collapsed: 'But while' } as const;
/** What people notice of such a wait. */
const SUFFERS = {
  soft: 'calls may notice it',
  soggy: 'calls and remote desktops suffer',
  collapsed: 'calls break up, and remote desktops cannot be used',
} as const;

const RATE_GRAVITY = { full: 0, capped: 1, thin: 2, starved: 3, 'no verdict': 0 } as const;
const DELAY_GRAVITY = { crisp: 0, firm: 0, soft: 1, soggy: 2, collapsed: 3 } as const;

function leadOf({ verdict, bloat }: RunReport): RunSentence['lead'] {
  return bloat !== null && DELAY_GRAVITY[bloat.rating] > RATE_GRAVITY[verdict] ? 'delay' : 'held';
}

/** Puts a report into words. Unknown figures are said to be unmeasured. */
export function sentenceOf(report: RunReport, conditions: RunConditions): RunSentence {
  return {
    figures: figuresOf(report),
    held: heldOf(report, conditions),
    delay: delayOf(report),
    lead: leadOf(report),
  };
}

/** A sentence as one text, the worse of rate and delay right behind the figures. */
export function sentenceText({ figures, held, delay, lead }: RunSentence): string {
  return (lead === 'delay' ? [figures, delay, held] : [figures, held, delay]).filter((part) => part !== '').join(' ');
}
