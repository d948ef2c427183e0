import type { SideQuantity } from '../judge/compare/side-run';
import { WEEK_BLOCKS, type BlockAnswer, type WeekBlock } from '../over-time/hours-of-week';
import type { LevelShift } from '../over-time/level-shifts';
import type { OverTime } from '../over-time/over-time';
import type { PlanOverTime } from '../over-time/plan-over-time';
import type { Direction } from '../domain/plan';
import { loadInHours, type HourLoads } from '../over-time/hour-loads';
import type { SlowHours } from '../over-time/slow-hours';
import { UNFIT_WORDS } from './fitness-words';
import { countWords, delayFigure, nominalRateFigure, rateFigure, rateWords, shareWords } from './quantity-words';
import { QUANTITY_NAMES, sideFigureWords } from './side-words';

/** Something that lies in the interval of a change and may explain it. */
export interface Explains {
  readonly atMs: number;
  readonly words: string;
}

/** How a moment is told: by the page, in the time zone of the office. */
export type Moment = (atMs: number) => string;

const isRate = (quantity: SideQuantity) => quantity === 'down' || quantity === 'up';
const SUBJECT: Readonly<Record<SideQuantity, string>> = {
  ...QUANTITY_NAMES,
  idle: 'the idle delay',
  addedDown: 'the delay that the download adds',
  addedUp: 'the delay that the upload adds',
  jitter: 'the jitter',
  loss: 'the loss',
};
const DURING: Readonly<Record<WeekBlock, string>> = {
  night: 'At night',
  morning: 'In the morning',
  'working hours': 'In working hours',
  evening: 'In the evening',
  weekend: 'At weekends',
};
const occasions = (count: number) => countWords(count, 'occasion');

function signed(quantity: SideQuantity, value: number): string {
  const size = quantity === 'loss' ? (100 * Math.abs(value)).toFixed(2) : delayFigure(Math.abs(value));
  return `${value < 0 ? '−' : '+'}${size}`;
}

function sizeOf(quantity: SideQuantity, { shift, interval: { low, high } }: LevelShift): string {
  if (isRate(quantity))
    return `${shareWords(shift)} of before (${shareWords(low).replace(' %', '')} to ${shareWords(high)})`;
  const unit = quantity === 'loss' ? 'points' : 'ms';
  return `${signed(quantity, shift)} ${unit} (${signed(quantity, low)} to ${signed(quantity, high)})`;
}

/** A lasting change, when it was, how large, and what lies beside it. */
export function shiftWords(
  quantity: SideQuantity,
  shift: LevelShift,
  explains: readonly Explains[],
  moment: Moment,
): string {
  const beside = explains.filter(({ atMs }) => atMs >= shift.fromMs && atMs <= shift.untilMs);
  const said = beside.length === 0 ? '' : ` Beside it: ${beside.map(({ words }) => words).join('; ')}.`;
  const before = sideFigureWords(quantity, shift.before).replace(/ \D+$/, '');
  return `Between ${moment(shift.fromMs)} and ${moment(shift.untilMs)} ${SUBJECT[quantity]} went from ${before} to ${sideFigureWords(quantity, shift.after)}: ${sizeOf(quantity, shift)}.${said}`;
}

/** Hours beside each other as spans of the clock: [19, 20, 21] → "19:00 and 22:00"; through midnight as one. */
function spansOf(hours: readonly number[]): string[] {
  const set = new Set(hours);
  const starts = hours.filter((hour) => !set.has((hour + 23) % 24));
  const clock = (hour: number) => `${String(hour % 24).padStart(2, '0')}:00`;
  return (starts.length === 0 ? [0] : starts).map((start) => {
    let end = start + 1;
    while (set.has(end % 24) && end - start < 24) end += 1;
    return `${clock(start)} and ${clock(end)}`;
  });
}

/** What goes over a line by the hour, and what its plan promises, payload, bits per second. */
export interface LineLoads {
  readonly hours: HourLoads;
  readonly promised: Readonly<Record<Direction, number>>;
}

/** Both together, where both are known. */
export const lineLoads = (
  hours: HourLoads | null,
  plan: { readonly downBps: number; readonly upBps: number } | undefined,
): LineLoads | null =>
  hours === null || plan === undefined ? null : { hours, promised: { down: plan.downBps, up: plan.upBps } };

/** Hours of the day in which a rate is lower than in the others. */
export function slowHoursWords(quantity: SideQuantity, slow: SlowHours): string {
  const spans = spansOf(slow.hours).join(', and between ');
  return `Between ${spans} ${SUBJECT[quantity]} is ${rateFigure(slow.bps)} Mb/s (${occasions(slow.occasions)}); else ${rateFigure(slow.elseBps)}.`;
}

/** Whose the slow hours are, as far as the line's own counters tell: nobody who is in this office, or perhaps somebody. */
function whoseHoursWords(quantity: SideQuantity, slow: SlowHours, loads: LineLoads | null): string {
  if (loads === null || (quantity !== 'down' && quantity !== 'up')) return '';
  const load = loadInHours(loads.hours[quantity], slow.hours, loads.promised[quantity]);
  if (load === null) return '';
  const { mbps, ofMbps, busy } = load;
  const use = `${rateFigure(mbps * 1e6)} of ${nominalRateFigure(ofMbps * 1e6)} Mb/s ${quantity}`;
  return busy
    ? ` Everybody in this office together moves ${use} then, by the router's counters: look first who does.`
    : ` Everybody in this office together moves only ${use} then, by the router's counters: it is not made here.`;
}

export function blockWords(
  quantity: SideQuantity,
  { block, median, elseMedian, occasions: count }: BlockAnswer,
): string {
  const figure = sideFigureWords(quantity, median);
  const other = elseMedian === null ? '' : `; else ${sideFigureWords(quantity, elseMedian).replace(/ \D+$/, '')}`;
  return `${DURING[block]} ${SUBJECT[quantity]} is ${figure} (${occasions(count)})${other}.`;
}

const bandWords = (quantity: SideQuantity, low: number, high: number) =>
  `${sideFigureWords(quantity, low).replace(/ \D+$/, '')} to ${sideFigureWords(quantity, high)}`;

/** How the newest occasion stands to what is usual; empty where nothing is usual yet. */
export function newestWords({ quantity, newest, bands }: OverTime, value: number): string {
  const band = bands.at(-1);
  if (band === null || band === undefined) return '';
  const usual = `usual is ${bandWords(quantity, band.low, band.high)}`;
  if (newest === null) return '';
  const { is, asFar, of } = newest;
  const rare =
    asFar === 0 ? `none of the ${of} before it was as ${is}` : `${asFar} of the ${of} before it were as ${is}`;
  return `The newest occasion is unusual: ${SUBJECT[quantity]} is ${sideFigureWords(quantity, value)}, and ${rare}; ${usual}.`;
}

/** What is told first: a change of level, hours that are slow, what is unusual now. */
export function timeSentences(
  shows: readonly (OverTime & { readonly last: number | null })[],
  explains: readonly Explains[],
  moment: Moment,
  loads: LineLoads | null = null,
): string[] {
  const shifts = shows
    .flatMap(({ quantity, shifts: of }) => of.map((shift) => ({ quantity, shift })))
    .sort((a, b) => b.shift.fromMs - a.shift.fromMs)
    .map(({ quantity, shift }) => shiftWords(quantity, shift, explains, moment));
  const hours = shows.flatMap(({ quantity, slowHours, weekBlocks }) =>
    slowHours !== null
      ? [slowHoursWords(quantity, slowHours) + whoseHoursWords(quantity, slowHours, loads)]
      : WEEK_BLOCKS.flatMap((block) => weekBlocks.filter((each) => each.block === block && each.worse)).map((each) =>
          blockWords(quantity, each),
        ),
  );
  const newest = shows
    .flatMap((each) => (each.last === null ? [] : newestWords(each, each.last)))
    .filter((words) => words !== '');
  return [...shifts, ...hours, ...newest];
}

/** What is said where nothing stands out: how much was looked at, and what is usual. */
export function nothingOverTime(shows: readonly OverTime[], count: number): string {
  if (count === 0) return 'Nothing that counts was measured here yet.';
  if (count < 8)
    return `${occasions(count)} so far: what is usual is known from eight on, a change of level from ten or twelve.`;
  const usual = shows.flatMap(({ quantity, usual: band }) =>
    band === null || !isRate(quantity) ? [] : [`${bandWords(quantity, band.low, band.high)} ${quantity}`],
  );
  const said = usual.length === 0 ? '' : ` Usual is ${usual.join(' and ')}.`;
  return `Nothing stands out over time in ${occasions(count)}: no lasting change, no hours that are worse.${said}`;
}

const runs = (count: number) => countWords(count, 'run');

/** How often the plan was met, of the runs that could tell, and why others could not. */
export function planOverTimeWords(plan: PlanOverTime, moment: Moment): string[] {
  const fit = plan.met + plan.notMet;
  const reasons = plan.reasons.slice(0, 3).map(({ code, runs: count }) => `${UNFIT_WORDS[code] ?? code} (${count})`);
  const unfit =
    plan.cannotTell === 0
      ? []
      : [`${runs(plan.cannotTell)} could not tell${reasons.length === 0 ? '' : `: ${reasons.join(', ')}`}.`];
  if (fit === 0) return ['No run could tell whether the plan is met.', ...unfit];
  const share = `Of ${runs(fit)} that could tell, ${plan.met} met the plan: ${shareWords(plan.met / fit)}.`;
  const { longestBelow } = plan;
  const longest =
    longestBelow === null || longestBelow.runs < 2
      ? []
      : [
          `The longest time below it: ${moment(longestBelow.fromMs)} to ${moment(longestBelow.untilMs)}, ${runs(longestBelow.runs)} in a row.`,
        ];
  return [share, ...longest, ...unfit];
}

/** A rate as a share of the plan, for a cell of the map: "63 %". */
export const shareOfPlan = (bps: number, planBps: number | null): string =>
  planBps === null ? rateWords(bps) : shareWords(bps / planBps);
