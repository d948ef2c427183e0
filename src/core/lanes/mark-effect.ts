import { compareGroups, type GroupComparison } from '../judge/compare/group-comparison';
import { seededRandom } from '../stats/seeded-random';
import { median } from '../stats/percentile';
import { MINUTE_MS, type LaneFigures } from './lane';

/** Before and after a mark so much is looked at, ms. */
export const BESIDE_MARK_MS = 30 * MINUTE_MS;

export interface MarkStretch {
  readonly minutes: number;
  /** Median of the minutes' medians, ms; null: nothing was answered. */
  readonly medianMs: number | null;
  /** Median of the minutes' p95, ms. */
  readonly p95Ms: number | null;
  /** Of what was sent; null: nothing was. */
  readonly lossShare: number | null;
}

export interface MarkEffect {
  readonly before: MarkStretch;
  readonly during: MarkStretch;
  readonly after: MarkStretch;
  /** During against before, by the medians of whole minutes; null: too short to tell. */
  readonly against: Extract<GroupComparison, { status: 'told' }> | null;
}

type Minute = Omit<LaneFigures, 'lostThere' | 'lostBack'> & { readonly fromMs: number };

const known = (values: readonly (number | null)[]) => values.filter((value) => value !== null);

function stretchOf(minutes: readonly Minute[]): MarkStretch {
  const sent = minutes.reduce((sum, minute) => sum + minute.sent, 0);
  const answered = minutes.reduce((sum, minute) => sum + minute.answered, 0);
  return {
    minutes: minutes.length,
    medianMs: median(known(minutes.map(({ medianMs }) => medianMs))),
    p95Ms: median(known(minutes.map(({ p95Ms }) => p95Ms))),
    lossShare: sent === 0 ? null : 1 - answered / sent,
  };
}

/**
 * What a lane said before, during and after a mark: by whole minutes, those on an edge left out. During is held against before as
 * in comparing groups, each minute one value (its median).
 */
export function markEffect(
  minutes: readonly Minute[],
  { fromMs, untilMs }: { readonly fromMs: number; readonly untilMs: number },
): MarkEffect {
  const within = (from: number, to: number) =>
    minutes.filter((minute) => minute.fromMs >= from && minute.fromMs + MINUTE_MS <= to);
  const [before, during, after] = [
    within(fromMs - BESIDE_MARK_MS, fromMs),
    within(fromMs, untilMs),
    within(untilMs, untilMs + BESIDE_MARK_MS),
  ];
  const valuesOf = (of: readonly Minute[]) =>
    of.flatMap(({ medianMs, fromMs: at }) => (medianMs === null ? [] : [{ value: medianMs, occasion: String(at) }]));
  const compared = compareGroups(valuesOf(before), valuesOf(during), 'delay', seededRandom(1));
  return {
    ...{ before: stretchOf(before), during: stretchOf(during), after: stretchOf(after) },
    against: compared.status === 'told' ? compared : null,
  };
}
