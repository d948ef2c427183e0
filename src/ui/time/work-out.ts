import { overTimeOfColumn, SIDE_QUANTITIES, type OverTime, type SideQuantity } from '@/core';
import type { TimeSeries } from '@/services';
import type { Shown, TimeSpan } from './time-messages';

/** What time shows of a series, quantity by quantity. */
export interface WorkedOut {
  readonly shows: ReadonlyMap<SideQuantity, OverTime>;
  readonly places: ReadonlyMap<SideQuantity, readonly number[]>;
  readonly told: readonly Shown[];
  /** Null where nothing was measured. */
  readonly whole: TimeSpan | null;
}

/** Room on both sides of the first and the last occasion, as a share of what lies between, and at least so much. */
const MARGIN = { share: 0.02, ms: 1800_000 } as const;

function wholeOf({ occasions: { startedAtMs } }: TimeSeries): TimeSpan | null {
  const [first, last] = [startedAtMs[0], startedAtMs.at(-1)];
  if (first === undefined || last === undefined) return null;
  const margin = Math.max(MARGIN.ms, MARGIN.share * (last - first));
  return { fromMs: first - margin, toMs: last + margin };
}

export function workOut(series: TimeSeries): WorkedOut {
  const shows = new Map<SideQuantity, OverTime>();
  const places = new Map<SideQuantity, readonly number[]>();
  const told: Shown[] = [];
  for (const quantity of SIDE_QUANTITIES) {
    const { shown, places: known, last } = overTimeOfColumn(series.occasions, series.occasions[quantity], quantity);
    shows.set(quantity, shown);
    places.set(quantity, known);
    const { bands, ...rest } = shown;
    told.push({ ...rest, lastBand: bands.at(-1) ?? null, last });
  }
  return { shows, places, told, whole: wholeOf(series) };
}
