import { levelShiftsOf, type LevelShift } from './level-shifts';
import { slowHoursOf, type SlowHours } from './slow-hours';
import { seriesKindOf, type SeriesKind, type TimedValue } from './timed-occasion';
import { unusualAfter, usualBandOf, usualBands, type Unusual, type UsualBand } from './usual-band';
import { weekBlockOf, weekBlocksOf, weekHoursOf, type BlockAnswer, type WeekHour } from './hours-of-week';
import type { SideQuantity } from '../judge/compare/side-run';

/** An occasion with its place in the week of its office. */
export interface OccasionInTime extends TimedValue {
  /** Id of its set. */
  readonly occasion: string;
  /** From 0 (Monday) to 6, and from 0 to 23. */
  readonly weekday: number;
  readonly hour: number;
}

/** All that time shows of one figure under the same conditions. */
export interface OverTime {
  readonly quantity: SideQuantity;
  /** Before each occasion, what was usual. */
  readonly bands: readonly (UsualBand | null)[];
  /** What is usual now, at hours like those of the newest. */
  readonly usual: UsualBand | null;
  /** Whether the newest occasion is as usual. */
  readonly newest: Unusual | null;
  readonly shifts: readonly LevelShift[];
  readonly weekHours: readonly WeekHour[];
  readonly weekBlocks: readonly BlockAnswer[];
  /** Only of rates. */
  readonly slowHours: SlowHours | null;
}

/** Whether an occasion lies in hours that are worse than the others: each is held against its like. */
function worseHours(blocks: readonly BlockAnswer[], slow: SlowHours | null): (of: OccasionInTime) => boolean {
  if (slow !== null) return ({ hour }) => slow.hours.includes(hour);
  const worse = blocks.filter((each) => each.worse).map(({ block }) => block);
  return (of) => worse.includes(weekBlockOf(of));
}

/** The band before each occasion, from those of its kind of hours. */
function bandsByHours(
  occasions: readonly OccasionInTime[],
  isWorse: (of: OccasionInTime) => boolean,
  kind: SeriesKind,
): (UsualBand | null)[] {
  const bands: (UsualBand | null)[] = occasions.map(() => null);
  for (const worse of [false, true]) {
    const places = occasions.flatMap((of, place) => (isWorse(of) === worse ? [place] : []));
    const own = usualBands(
      places.map((place) => occasions[place]!.value),
      kind,
    );
    places.forEach((place, index) => (bands[place] = own[index]!));
  }
  return bands;
}

/**
 * What time shows of a figure, from its occasions, the oldest first (comparing.md). Where some hours are worse than the
 * others, what is usual is known for them and for the rest apart. Rates of 0 are left out by the caller.
 */
export function overTimeOf(occasions: readonly OccasionInTime[], quantity: SideQuantity): OverTime {
  const kind = seriesKindOf(quantity);
  const last = occasions.at(-1);
  const slowHours =
    kind === 'rate'
      ? slowHoursOf(occasions.map(({ hour, value, occasion }) => ({ hour, bps: value, occasion })))
      : null;
  const weekBlocks = weekBlocksOf(occasions, kind);
  const isWorse = worseHours(weekBlocks, slowHours);
  const like =
    last === undefined ? [] : occasions.filter((of) => isWorse(of) === isWorse(last)).map(({ value }) => value);
  return {
    quantity,
    bands: bandsByHours(occasions, isWorse, kind),
    usual: usualBandOf(like, kind),
    newest: last === undefined ? null : unusualAfter(like.slice(0, -1), last.value, kind),
    shifts: levelShiftsOf(occasions, kind),
    weekHours: weekHoursOf(occasions),
    weekBlocks,
    slowHours,
  };
}

/** Occasions column by column, the oldest first; null: not measured. */
export interface TimeColumns {
  readonly startedAtMs: readonly number[];
  readonly runId: readonly string[];
  readonly weekday: readonly number[];
  readonly hour: readonly number[];
}

/** What time shows of one column, and at which places of it something was measured. */
export function overTimeOfColumn(
  { startedAtMs, runId, weekday, hour }: TimeColumns,
  values: readonly (number | null)[],
  quantity: SideQuantity,
): { readonly shown: OverTime; readonly places: readonly number[]; readonly last: number | null } {
  const places = values.flatMap((value, place) => (value === null ? [] : [place]));
  const shown = overTimeOf(
    places.map((place) => ({
      ...{ startedAtMs: startedAtMs[place]!, value: values[place]!, occasion: runId[place]! },
      ...{ weekday: weekday[place]!, hour: hour[place]! },
    })),
    quantity,
  );
  const last = places.at(-1);
  return { shown, places, last: last === undefined ? null : values[last]! };
}
