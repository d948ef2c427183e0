import { groupedBy } from '../stats/grouped';
import { compareGroups, type ComparedRun } from '../judge/compare/group-comparison';
import { holmAdjusted } from '../judge/compare/holm';
import { rankSumP } from '../stats/rank-sum';
import { median } from '../stats/percentile';
import { seededRandom } from '../stats/seeded-random';

/** One occasion over a line, at an hour of the day. */
export interface HourlyRate {
  readonly hour: number;
  readonly bps: number;
  readonly occasion: string;
}

/** Hours in which a line gives less than in the others. Rates: medians in bits per second. */
export interface SlowHours {
  readonly hours: readonly number[];
  readonly bps: number;
  readonly elseBps: number;
  readonly occasions: number;
}

const LEAST_OF_AN_HOUR = 4;
const LEAST_ELSE = 6;
const ALPHA = 0.05;
/** Groups of more than this together go by the normal approximation. */
const COUNTED_OUT = 20;
/** A smaller difference is no sag. */
const LEAST_LOSS = 0.1;

/** Hours beside each other, through midnight. */
export function isNeighbour(one: number, other: number): boolean {
  return (one + 1) % 24 === other || (other + 1) % 24 === one;
}

/**
 * Hours of the day in which a line is slow, against all others, each tested on its own (Mann–Whitney) and held together
 * by Holm's step-down; null when there is none. An hour needs four occasions, the rest six.
 */
export function slowHoursOf(rates: readonly HourlyRate[], seed = 1): SlowHours | null {
  const byHour = groupedBy(rates, ({ hour }) => hour);
  const usual = median(rates.map(({ bps }) => bps));
  if (usual === null) return null;
  const asRuns = (of: readonly HourlyRate[]): ComparedRun[] =>
    of.map(({ bps, occasion }) => ({ value: bps, occasion }));
  const candidates = [...byHour].filter(([, of]) => of.length >= LEAST_OF_AN_HOUR);
  // Held against the hours that are not slow themselves, or two slow ones would hide each other.
  const low = new Set(
    candidates.filter(([, of]) => median(of.map(({ bps }) => bps))! < (1 - LEAST_LOSS) * usual).map(([hour]) => hour),
  );
  const rest = rates.filter(({ hour }) => !low.has(hour));
  if (rest.length < LEAST_ELSE) return null;
  const tested = candidates.flatMap(([hour, of]) => {
    // What is not low can be no sag: it is counted among the tests, and need not be made.
    if (!low.has(hour)) return [{ hour, p: 1, shift: 1 }];
    const shift = median(of.map(({ bps }) => bps))! / median(rest.map(({ bps }) => bps))!;
    if (of.length + rest.length > COUNTED_OUT)
      return [
        {
          hour,
          p: rankSumP(
            of.map(({ bps }) => bps),
            rest.map(({ bps }) => bps),
          ),
          shift,
        },
      ];
    const compared = compareGroups(asRuns(rest), asRuns(of), 'rate', seededRandom(seed + hour));
    return compared.status === 'told' ? [{ hour, p: compared.p, shift }] : [];
  });
  const adjusted = holmAdjusted(tested.map(({ p }) => p));
  const hours = tested
    .filter(({ shift }, index) => adjusted[index]! < ALPHA && shift < 1 - LEAST_LOSS)
    .map(({ hour }) => hour)
    .sort((a, b) => a - b);
  if (hours.length === 0) return null;
  const slow = rates.filter(({ hour }) => hours.includes(hour));
  const others = rates.filter(({ hour }) => !hours.includes(hour));
  return {
    hours,
    bps: median(slow.map(({ bps }) => bps))!,
    elseBps: median(others.map(({ bps }) => bps))!,
    occasions: slow.length,
  };
}
