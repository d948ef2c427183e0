import { levelShiftsOf, type LevelShift } from './level-shifts';
import { slowHoursOf, type SlowHours } from './slow-hours';
import { seriesKindOf, type TimedValue } from './timed-occasion';
import { unusualAfter, usualBandOf, usualBands, type Unusual, type UsualBand } from './usual-band';
import { weekBlocksOf, weekHoursOf, type BlockAnswer, type WeekHour } from './hours-of-week';
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
  /** What is usual now. */
  readonly usual: UsualBand | null;
  /** Whether the newest occasion is as usual. */
  readonly newest: Unusual | null;
  readonly shifts: readonly LevelShift[];
  readonly weekHours: readonly WeekHour[];
  readonly weekBlocks: readonly BlockAnswer[];
  /** Only of rates. */
  readonly slowHours: SlowHours | null;
}

/** What time shows of a figure, from its occasions, the oldest first (comparing.md). Rates of 0 are left out by the caller. */
export function overTimeOf(occasions: readonly OccasionInTime[], quantity: SideQuantity): OverTime {
  const kind = seriesKindOf(quantity);
  const values = occasions.map(({ value }) => value);
  const last = values.at(-1);
  const before = values.slice(0, -1);
  const hourly = occasions.map(({ hour, value, occasion }) => ({ hour, bps: value, occasion }));
  return {
    quantity,
    bands: usualBands(values, kind),
    usual: usualBandOf(values, kind),
    newest: last === undefined ? null : unusualAfter(before, last, kind),
    shifts: levelShiftsOf(occasions, kind),
    weekHours: weekHoursOf(occasions),
    weekBlocks: weekBlocksOf(occasions, kind),
    slowHours: kind === 'rate' ? slowHoursOf(hourly) : null,
  };
}
