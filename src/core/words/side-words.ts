import type { GroupComparison } from '../judge/compare/group-comparison';
import type { SideBySide, SideFigures, TrayFigures } from '../judge/compare/side-by-side';
import type { SideQuantity, Trait, Tray } from '../judge/compare/side-run';
import { countWords, delayFigure, delayWords, rateWords, shareWords } from './quantity-words';

export const TRAIT_WORDS: Readonly<Record<Trait, string>> = {
  link: 'link',
  reach: 'reach',
  device: 'device',
  peer: 'peer',
  line: 'line',
  plan: 'plan',
  practice: 'practice line',
  spot: 'spot',
  profile: 'profile',
  told: 'what was said before the run',
  hours: 'hours',
  weekdays: 'days of the week',
  method: 'method version',
};

export const QUANTITY_NAMES: Readonly<Record<SideQuantity, string>> = {
  down: 'down',
  up: 'up',
  idle: 'idle delay',
  addedDown: 'delay that the download adds',
  addedUp: 'delay that the upload adds',
  jitter: 'jitter',
  loss: 'loss',
};

const isRate = (quantity: SideQuantity) => quantity === 'down' || quantity === 'up';

/** A figure of a quantity with its unit. */
export function sideFigureWords(quantity: SideQuantity, value: number | null): string {
  if (isRate(quantity)) return rateWords(value);
  if (quantity !== 'loss' || value === null) return delayWords(value);
  return `${(100 * value).toFixed(2)} %`;
}

const listed = (words: readonly string[]) =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)!}`;

/** A difference of delays or losses, with its sign and unit. */
function differenceFigure(quantity: SideQuantity, value: number): string {
  const size = Math.abs(value);
  const figure = quantity === 'loss' ? (100 * size).toFixed(2) : delayFigure(size);
  // What is shown as nothing has no sign.
  const sign = Number(figure) === 0 ? '' : value > 0 ? '+' : '−';
  return `${sign}${figure} ${quantity === 'loss' ? 'points' : 'ms'}`;
}

function sizeWords(quantity: SideQuantity, told: GroupComparison & { readonly status: 'told' }): string {
  const { shift, interval } = told;
  if (isRate(quantity))
    return `${shareWords(shift)} of it (${shareWords(interval.low).replace(' %', '')} to ${shareWords(interval.high)})`;
  const [low, high] = [differenceFigure(quantity, interval.low), differenceFigure(quantity, interval.high)];
  return `${differenceFigure(quantity, shift)} (${low.replace(/ (ms|points)$/, '')} to ${high})`;
}

const within = (quantity: SideQuantity) => (isRate(quantity) ? '5 %' : quantity === 'loss' ? 'half a point' : '5 ms');

/** How a tray differs from the first in one quantity: how much, whether it is real, and whether it matters. */
export function differenceWords(quantity: SideQuantity, compared: GroupComparison | null): string {
  if (compared === null) return 'not measured in both';
  if (compared.status === 'too-few')
    return `too few to tell: ${countWords(compared.moreWanted, `more ${compared.unit === 'runs' ? 'run' : 'occasion'}`)} would let it be told`;
  const size = sizeWords(quantity, compared);
  if (compared.matters === 'no')
    return `${size}: the same within ${within(quantity)}${compared.real ? '; the little there is is real' : ''}`;
  const real = compared.real ? 'real' : 'may be chance';
  if (compared.matters === 'yes') return `${size}: ${real}`;
  const more = compared.moreWanted === null ? '' : `; ${compared.moreWanted} more of each should tell`;
  return `${size}: ${real}, cannot tell yet whether it matters${more}`;
}

const trayName = (trays: readonly Pick<Tray, 'name'>[], place: number) => trays[place]!.name;

/** How many witnesses there are: "6 occasions each", "5 and 7 runs". */
function witnessWords(a: TrayFigures, b: TrayFigures, told: GroupComparison & { readonly status: 'told' }): string {
  const [n, m] = told.unit === 'occasions' ? [a.occasions, b.occasions] : [a.count, b.count];
  const noun = told.unit === 'occasions' ? 'occasion' : 'run';
  if (n === m) return `${countWords(n, noun)} each`;
  return `${n} and ${countWords(m, noun)}`;
}

function rateSentence(
  { quantity, trays: figures, against }: SideFigures,
  trays: readonly Tray[],
  place: number,
): string {
  const compared = against[place - 1]!;
  const [a, b] = [trayName(trays, 0), trayName(trays, place)];
  if (compared === null) return '';
  if (compared.status === 'too-few')
    return `${a} and ${b} cannot be told apart ${quantity} with ${figures[0]!.count} and ${countWords(figures[place]!.count, 'run')}: ${compared.moreWanted} more would let them be`;
  const witnesses = witnessWords(figures[0]!, figures[place]!, compared);
  if (compared.matters === 'no') return `${b} gives as much as ${a} ${quantity}, within 5 %: ${witnesses}`;
  const { low, high } = compared.interval;
  const size = `${shareWords(compared.shift)} of ${a} ${quantity} (${shareWords(low).replace(' %', '')} to ${shareWords(high)})`;
  return `${b} gives ${size}, ${compared.real ? 'real' : 'which may be chance'}, ${witnesses}`;
}

/** The same of delay: the way that differs more, in milliseconds. */
function delaySentence(figures: readonly SideFigures[], place: number): string {
  const told = figures.flatMap(({ quantity, against }) => {
    const compared = against[place - 1];
    return quantity.startsWith('added') && compared?.status === 'told' ? [{ quantity, compared }] : [];
  });
  const [first] = told.sort((a, b) => Math.abs(b.compared.shift) - Math.abs(a.compared.shift));
  if (first === undefined) return '';
  const { quantity, compared } = first;
  const load = quantity === 'addedDown' ? 'download' : 'upload';
  if (compared.matters === 'no') return 'delay under load is the same within 5 ms';
  if (!compared.real) return 'delay under load may be the same';
  const { low, high } = compared.interval;
  const [least, most] = [Math.min(Math.abs(low), Math.abs(high)), Math.max(Math.abs(low), Math.abs(high))];
  const way = compared.shift > 0 ? 'more' : 'less';
  return `the ${load} adds ${delayWords(Math.abs(compared.shift))} ${way} (${delayFigure(least)} to ${delayFigure(most)})`;
}

/** The rate that is told of: the one that differs more, or else the download. */
function leadingRate(figures: readonly SideFigures[], place: number): SideFigures | undefined {
  const rates = figures.filter(({ quantity, against }) => isRate(quantity) && against[place - 1] !== null);
  const size = ({ against }: SideFigures) => {
    const compared = against[place - 1]!;
    return compared.status === 'told' && compared.real ? Math.abs(Math.log(compared.shift)) : 0;
  };
  return [...rates].sort((a, b) => size(b) - size(a))[0];
}

/** One sentence for each tray after the first, that can be quoted. */
export function sideSentences({ figures }: Pick<SideBySide, 'figures'>, trays: readonly Tray[]): string[] {
  const empty = trays.filter(({ runs }) => runs.length === 0);
  if (empty.length > 0)
    return [
      `No run that counts is in ${listed(empty.map(({ name }) => `tray ${name}`))}: there is nothing to hold against the rest.`,
    ];
  return trays.slice(1).map((tray, index) => {
    const place = index + 1;
    const lead = leadingRate(figures, place);
    const parts = [lead === undefined ? '' : rateSentence(lead, trays, place), delaySentence(figures, place)];
    const said = parts.filter((part) => part !== '');
    if (said.length === 0) return `Nothing was measured in both ${trayName(trays, 0)} and ${tray.name}.`;
    const sentence = said.join('; ');
    return `${sentence.charAt(0).toUpperCase()}${sentence.slice(1)}.`;
  });
}

/** Whether it is fair, and why not. */
export function fairnessWords({ fairness, differences, fairBy, figures }: SideBySide): string {
  const isEmpty = (tray: number) => figures.every(({ trays }) => trays[tray]!.count === 0);
  if ((figures[0]?.trays ?? []).some((_, tray) => isEmpty(tray))) return '';
  const names = differences.map(({ trait }) => TRAIT_WORDS[trait]);
  if (fairness === 'repeat') return 'Nothing that is written down differs but the time: a repeat.';
  if (fairness === 'fair') return `Fair: only the ${names[0]!} differs.`;
  const way = fairBy[0];
  const remedy =
    way === undefined
      ? ' No runs are alike in all the rest: run both under the same conditions.'
      : ` Taking only runs that are alike in the rest leaves ${listed(way.runs.map(String))}, with the ${TRAIT_WORDS[way.keep]} alone different.`;
  return `Not fair: ${listed(names)} differ, and nobody knows which of them it was.${remedy}`;
}
