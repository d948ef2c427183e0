import type { Interval } from '../stats/block-bootstrap';
import { median, percentile } from '../stats/percentile';
import { pettitt } from '../stats/pettitt';
import { seededRandom, type RandomSource } from '../stats/seeded-random';
import { shiftOf } from '../judge/compare/shift';
import { LEAST_TOLD, type SeriesKind, type TimedValue } from './timed-occasion';

/** A lasting change of level between two occasions. */
export interface LevelShift {
  /** Index of the first occasion after it. */
  readonly at: number;
  /** 95 %: it lies between these two moments, ms UTC. */
  readonly fromMs: number;
  readonly untilMs: number;
  readonly before: number;
  readonly after: number;
  /** Hodges–Lehmann, with 95 % interval: a ratio of rates, else a difference. */
  readonly shift: number;
  readonly interval: Interval;
}

const LEAST_OCCASIONS = 5;
const ALPHA = 0.05;
/** Occasions on either side that say when it was: further away they know nothing of it. */
const NEAR = 40;
const DRAWS = 300;
const SEED = 1979;
/** Drawn places know nothing of a wrong first place: a little wider than 2.5 and 97.5 % covers 95 %, by simulation. */
const WIDE = { low: 0.01, high: 0.99 } as const;

/** Change points, by applying the test again to both parts as long as it finds one. */
function changePoints(values: readonly number[], from: number, to: number): number[] {
  const found = pettitt(values.slice(from, to), LEAST_OCCASIONS);
  if (found === null || found.p > ALPHA) return [];
  const at = from + found.at;
  return [...changePoints(values, from, at), at, ...changePoints(values, at, to)];
}

/** 95 % interval of the place: both sides drawn anew from themselves, and the place found again in each draw. */
function placeInterval(before: readonly number[], after: readonly number[], random: RandomSource): Interval {
  const drawn = (of: readonly number[]) => of.map(() => of[Math.floor(random() * of.length)]!);
  const places = Array.from(
    { length: DRAWS },
    () => pettitt([...drawn(before), ...drawn(after)], 2)!.at - before.length,
  );
  return { low: Math.floor(percentile(places, WIDE.low)!), high: Math.ceil(percentile(places, WIDE.high)!) };
}

const mattersAt = (kind: SeriesKind, shift: number) =>
  kind === 'rate' ? Math.abs(Math.log(shift)) >= -Math.log(1 - LEAST_TOLD.rate) : Math.abs(shift) >= LEAST_TOLD[kind];

/**
 * Lasting changes of a series of occasions, the oldest first (Pettitt 1979, applied again to both parts): each with at least
 * five occasions on either side, dated with its interval, its size by Hodges–Lehmann between the levels on both sides of
 * it. One that is smaller than 5 %, 5 ms or half a percentage point is not told. Rates must be above 0.
 */
export function levelShiftsOf(series: readonly TimedValue[], kind: SeriesKind): LevelShift[] {
  const values = series.map(({ value }) => value);
  const points = changePoints(values, 0, values.length);
  const random = seededRandom(SEED);
  const [scale, back] = kind === 'rate' ? [Math.log, Math.exp] : [(value: number) => value, (value: number) => value];
  return points.flatMap((at, index) => {
    const before = values.slice(points[index - 1] ?? 0, at);
    const after = values.slice(at, points[index + 1] ?? values.length);
    const size = shiftOf(before.map(scale), after.map(scale), random);
    if (size === null || !mattersAt(kind, back(size.estimate))) return [];
    const place = placeInterval(before.slice(-NEAR), after.slice(0, NEAR), random);
    return [
      {
        at,
        fromMs: series[Math.max(0, at + place.low - 1)]!.startedAtMs,
        untilMs: series[Math.min(series.length - 1, at + place.high)]!.startedAtMs,
        ...{ before: median(before)!, after: median(after)!, shift: back(size.estimate) },
        interval: { low: back(size.interval.low), high: back(size.interval.high) },
      },
    ];
  });
}
