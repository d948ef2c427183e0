import { comparePairs, type ComparedRun, type GroupComparison } from '../judge/compare/group-comparison';
import { groupedBy } from '../stats/grouped';
import { median } from '../stats/percentile';
import { seededRandom } from '../stats/seeded-random';
import { LEAST_TOLD, type SeriesKind } from './timed-occasion';

/** An occasion with its place in the week of its office: weekday from 0 (Monday) to 6, hour from 0 to 23. */
export interface WeekValue {
  readonly weekday: number;
  readonly hour: number;
  readonly value: number;
  readonly occasion: string;
}

/** What an hour of the week usually gives. */
export interface WeekHour {
  readonly weekday: number;
  readonly hour: number;
  readonly median: number;
  readonly occasions: number;
}

/** Parts of the week, in the order in which they are told. */
export const WEEK_BLOCKS = ['night', 'morning', 'working hours', 'evening', 'weekend'] as const;
export type WeekBlock = (typeof WEEK_BLOCKS)[number];

/** How a part of the week stands to all the rest of it. */
export interface BlockAnswer {
  readonly block: WeekBlock;
  readonly occasions: number;
  readonly median: number;
  /** Null: nothing lies outside of it. */
  readonly elseMedian: number | null;
  readonly comparison: GroupComparison;
  /** Less of a rate, or more of a delay or of loss, and that for sure and so much that it matters. */
  readonly worse: boolean;
}

/** Of weekdays from 0 (Monday). */
export const SATURDAY = 5;
const HOURS = { morning: 6, working: 9, evening: 18, night: 22 } as const;
const SEED = 168;

/** Part of the day at an office: nobody works at night, and a line sags in the evening. */
export function partOfDay(hour: number): Exclude<WeekBlock, 'weekend'> {
  if (hour < HOURS.morning || hour >= HOURS.night) return 'night';
  if (hour < HOURS.working) return 'morning';
  return hour < HOURS.evening ? 'working hours' : 'evening';
}

/** Nights are nights at weekends too; the rest of Saturday and Sunday is weekend. */
export function weekBlockOf({ weekday, hour }: Pick<WeekValue, 'weekday' | 'hour'>): WeekBlock {
  const part = partOfDay(hour);
  return weekday >= SATURDAY && part !== 'night' ? 'weekend' : part;
}

/** The median of each hour of the week in which something was measured, Monday's first. */
export function weekHoursOf(values: readonly WeekValue[]): WeekHour[] {
  return [...groupedBy(values, ({ weekday, hour }) => weekday * 24 + hour)]
    .sort(([one], [other]) => one - other)
    .map(([place, of]) => ({
      ...{ weekday: Math.floor(place / 24), hour: place % 24 },
      ...{ median: median(of.map(({ value }) => value))!, occasions: of.length },
    }));
}

/**
 * Each part of the week held against all the rest of it (comparing.md), with p by Holm over all parts. Rates must be above
 * 0. A part in which nothing was measured is not told.
 */
export function weekBlocksOf(values: readonly WeekValue[], kind: SeriesKind): BlockAnswer[] {
  const byBlock = groupedBy(values, weekBlockOf);
  const asRuns = (of: readonly WeekValue[]): ComparedRun[] => of.map(({ value, occasion }) => ({ value, occasion }));
  const blocks = WEEK_BLOCKS.filter((block) => byBlock.has(block));
  const groups = blocks.flatMap((block) => [
    asRuns(values.filter((value) => weekBlockOf(value) !== block)),
    asRuns(byBlock.get(block)!),
  ]);
  const limits = { share: LEAST_TOLD.rate, ms: kind === 'loss' ? LEAST_TOLD.loss : LEAST_TOLD.delay };
  const pairs = blocks.map((_, place) => [2 * place, 2 * place + 1] as const);
  const compared = comparePairs(groups, pairs, kind === 'rate' ? 'rate' : 'delay', seededRandom(SEED), limits);
  return compared.map(({ comparison }, place) => {
    const of = byBlock.get(blocks[place]!)!;
    const told = comparison.status === 'told' && comparison.real && comparison.matters === 'yes' ? comparison : null;
    return {
      ...{ block: blocks[place]!, occasions: of.length, median: median(of.map(({ value }) => value))! },
      elseMedian: median(groups[2 * place]!.map(({ value }) => value)),
      comparison,
      worse: told !== null && (kind === 'rate' ? told.shift < 1 : told.shift > 0),
    };
  });
}
