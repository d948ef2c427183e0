import type { Direction } from '../domain/plan';
import { compareGroups, type ComparedRun, type GroupComparison } from '../judge/compare/group-comparison';
import { groupedBy } from '../stats/grouped';
import { median } from '../stats/percentile';
import { seededRandom } from '../stats/seeded-random';
import type { Finding } from './finding';
import type { Occasion } from './observation';
import { segmentBase, type DiagnosedSegment } from './segment';
import type { SwapCode } from './swap';

/** A swap as it was written down, and not taken back. */
export interface DatedSwap {
  readonly id: string;
  readonly what: SwapCode;
  /** Id of the segment as it was called before any swap. */
  readonly segmentId: string;
  /** Whose segment it is; null: all share it. */
  readonly deviceId: string | null;
  readonly atMs: number;
}

/** Runs of one device over one way before and after a swap. Rates: medians in bits per second. */
export interface SwapEffect {
  readonly deviceId: string;
  readonly direction: Direction;
  readonly beforeBps: number;
  readonly afterBps: number;
  readonly runsBefore: number;
  readonly runsAfter: number;
  readonly comparison: GroupComparison;
  /** Ids of the runs that were compared. */
  readonly runIds: readonly string[];
  /** Those of them from before the swap. */
  readonly runIdsBefore: readonly string[];
}

/** Runs of one device over one kind of link and reach: nothing but the swap lies between two of them. */
const wayOf = ({ deviceId, reach, path }: Occasion) => `${deviceId} ${reach} ${segmentBase(path[1] ?? '')}`;

/** Of the ways with runs on both sides of the swap, the one with most of them. */
function bothSides(swap: DatedSwap, all: readonly DatedSwap[], occasions: readonly Occasion[]) {
  const here = all.filter(({ segmentId }) => segmentId === swap.segmentId).map(({ atMs }) => atMs);
  // What lies between two swaps of one part speaks of what stood there then.
  const fromMs = Math.max(-Infinity, ...here.filter((atMs) => atMs < swap.atMs));
  const untilMs = Math.min(Infinity, ...here.filter((atMs) => atMs > swap.atMs));
  const touched = occasions.filter(
    ({ path, deviceId, startedAtMs }) =>
      (swap.deviceId === null || deviceId === swap.deviceId) &&
      startedAtMs >= fromMs &&
      startedAtMs < untilMs &&
      path.some((id) => segmentBase(id) === swap.segmentId),
  );
  const ways = [...groupedBy(touched, wayOf).values()].map((of) => ({
    before: of.filter(({ startedAtMs }) => startedAtMs < swap.atMs),
    after: of.filter(({ startedAtMs }) => startedAtMs >= swap.atMs),
  }));
  const fewer = ({ before, after }: (typeof ways)[number]) => Math.min(before.length, after.length);
  return ways.sort((a, b) => fewer(b) - fewer(a)).find((way) => fewer(way) > 0) ?? null;
}

/** What a swap did, in the direction that it changed more (comparing.md's group comparison); null: nothing on one side of it. */
export function swapEffect(
  swap: DatedSwap,
  all: readonly DatedSwap[],
  occasions: readonly Occasion[],
): SwapEffect | null {
  const sides = bothSides(swap, all, occasions);
  if (sides === null) return null;
  const ratesOf = (direction: Direction, of: readonly Occasion[]): ComparedRun[] =>
    of.flatMap(({ runIds, [direction]: rate }) =>
      rate === null ? [] : [{ value: rate.medianBps, occasion: runIds[0]! }],
    );
  const both = (['down', 'up'] as const).flatMap((direction): SwapEffect[] => {
    const [a, b] = [ratesOf(direction, sides.before), ratesOf(direction, sides.after)];
    if (a.length === 0 || b.length === 0) return [];
    return [
      {
        ...{ direction, deviceId: sides.before[0]!.deviceId },
        beforeBps: median(a.map(({ value }) => value))!,
        afterBps: median(b.map(({ value }) => value))!,
        ...{ runsBefore: a.length, runsAfter: b.length },
        comparison: compareGroups(a, b, 'rate', seededRandom(1)),
        runIds: [...sides.before, ...sides.after].flatMap(({ runIds }) => runIds),
        runIdsBefore: sides.before.flatMap(({ runIds }) => runIds),
      },
    ];
  });
  const change = (each: SwapEffect) => Math.abs(Math.log(each.afterBps / each.beforeBps));
  return both.sort((a, b) => change(b) - change(a))[0] ?? null;
}

interface SwappedOffice {
  readonly swaps: readonly DatedSwap[];
  readonly occasions: readonly Occasion[];
  readonly segments: readonly DiagnosedSegment[];
  readonly devices: readonly { readonly id: string; readonly name: string }[];
  readonly freshFromMs: number;
}

/**
 * Swaps of late that made a real difference which matters, for better or worse. A queue that is managed is left out: it is
 * to cost rate, and what it gains is delay, which has findings of its own.
 */
export function swapFindings({ swaps, occasions, segments, devices, freshFromMs }: SwappedOffice): Finding[] {
  return swaps.flatMap((swap): Finding[] => {
    if (swap.atMs < freshFromMs || swap.what === 'queue-managed') return [];
    const effect = swapEffect(swap, swaps, occasions);
    if (effect === null || effect.comparison.status !== 'told') return [];
    if (!effect.comparison.real || effect.comparison.matters !== 'yes') return [];
    const { deviceId, direction, beforeBps, afterBps, runsBefore, runsAfter, runIds } = effect;
    const segment = segments.findLast(({ id }) => segmentBase(id) === swap.segmentId);
    const deviceName = devices.find(({ id }) => id === deviceId)?.name ?? '';
    const facts = { code: 'swap-told', what: swap.what, direction, beforeBps, afterBps } as const;
    return [
      {
        key: `swap-told ${swap.id}`,
        facts: { ...facts, deviceName, runsBefore, runsAfter },
        ...{ strength: 'found', segments: segment === undefined ? [] : [segment], hours: null, sinceMs: swap.atMs },
        deviceIds: [deviceId],
        evidence: { for: runIds, against: [] },
        weight: Math.max(0, 1 - afterBps / beforeBps),
      },
    ];
  });
}
