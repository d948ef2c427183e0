import {
  compareGroups,
  groupedBy,
  median,
  seededRandom,
  segmentBase,
  segmentWords,
  swapsFor,
  type ComparedRun,
  type DiagnosedSegment,
  type Direction,
  type GroupComparison,
  type Occasion,
  type SwapCode,
} from '@/core';
import type { StoredSwap } from '@/store';
import type { ConsoleContext } from '../console/console-context';
import { officeEvidence } from '../diagnosis/office-evidence';

export interface ShownSwap {
  readonly id: string;
  readonly what: SwapCode;
  readonly words: string;
  readonly note: string;
  readonly atMs: number;
  readonly byName: string;
  /** Runs of one device over one way before and after it; null: none on one side. */
  readonly compared: {
    readonly deviceName: string;
    readonly direction: Direction;
    readonly beforeBps: number;
    readonly afterBps: number;
    readonly runsBefore: number;
    readonly runsAfter: number;
    readonly comparison: GroupComparison;
  } | null;
}

/** What can be swapped: a place, and the kinds of swap there. */
export interface SwapPlace {
  readonly segmentId: string;
  readonly words: string;
  readonly kinds: readonly SwapCode[];
  readonly deviceId: string | null;
}

/** The places among these segments, each once, as they come. */
export function placesOf(segments: readonly DiagnosedSegment[]): SwapPlace[] {
  const places = new Map<string, SwapPlace>();
  for (const segment of segments) {
    const [segmentId, kinds] = [segmentBase(segment.id), swapsFor(segment.kind)];
    if (kinds.length > 0 && !places.has(segmentId))
      places.set(segmentId, { segmentId, kinds, words: segmentWords(segment), deviceId: segment.deviceId });
  }
  return [...places.values()];
}

/** Runs of one device over one kind of link and reach: nothing but the swap lies between two of them. */
const wayOf = ({ deviceId, reach, path }: Occasion) => `${deviceId} ${reach} ${segmentBase(path[1] ?? '')}`;

/** Of the ways with runs on both sides of the swap, the one with most of them. */
function bothSides(swap: StoredSwap, all: readonly StoredSwap[], occasions: readonly Occasion[]) {
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

function comparedSwap(
  swap: StoredSwap,
  all: readonly StoredSwap[],
  occasions: readonly Occasion[],
  nameOf: (deviceId: string) => string,
): ShownSwap['compared'] {
  const sides = bothSides(swap, all, occasions);
  if (sides === null) return null;
  const ratesOf = (direction: Direction, of: readonly Occasion[]): ComparedRun[] =>
    of.flatMap(({ runIds, [direction]: rate }) =>
      rate === null ? [] : [{ value: rate.medianBps, occasion: runIds[0]! }],
    );
  const both = (['down', 'up'] as const).flatMap((direction) => {
    const [a, b] = [ratesOf(direction, sides.before), ratesOf(direction, sides.after)];
    if (a.length === 0 || b.length === 0) return [];
    return [
      {
        ...{ direction, deviceName: nameOf(sides.before[0]!.deviceId) },
        beforeBps: median(a.map(({ value }) => value))!,
        afterBps: median(b.map(({ value }) => value))!,
        ...{ runsBefore: a.length, runsAfter: b.length },
        comparison: compareGroups(a, b, 'rate', seededRandom(1)),
      },
    ];
  });
  const change = (each: (typeof both)[number]) => Math.abs(Math.log(each.afterBps / each.beforeBps));
  return both.sort((a, b) => change(b) - change(a))[0] ?? null;
}

/** What each swap did. `devices`: those of the office. */
export function shownSwaps(
  swaps: readonly StoredSwap[],
  segments: readonly DiagnosedSegment[],
  occasions: readonly Occasion[],
  devices: readonly { readonly id: string; readonly name: string }[],
): ShownSwap[] {
  const words = new Map(segments.map((segment) => [segmentBase(segment.id), segmentWords(segment)]));
  const nameOf = (deviceId: string) => devices.find(({ id }) => id === deviceId)?.name ?? '';
  return swaps.map((swap) => ({
    ...{ id: swap.id, what: swap.what as SwapCode, note: swap.note, atMs: swap.atMs, byName: swap.byName },
    words: words.get(swap.segmentId) ?? 'a part that no run has crossed since',
    compared: comparedSwap(swap, swaps, occasions, nameOf),
  }));
}

/** Everything that can be swapped in an office, and what the swaps so far did, the newest first. */
export interface SwapsPage {
  readonly siteId: string;
  readonly places: readonly SwapPlace[];
  readonly swaps: readonly ShownSwap[];
}

export async function swapsPageOf(context: ConsoleContext, siteId: string): Promise<SwapsPage> {
  const [evidence, swaps] = await Promise.all([
    officeEvidence(context, siteId),
    context.store.findings.swapsOf(siteId),
  ]);
  const { segments, occasions, devices } = evidence;
  return {
    siteId,
    places: placesOf(segments).sort((a, b) => a.words.localeCompare(b.words)),
    swaps: shownSwaps(swaps, segments, occasions, devices).reverse(),
  };
}
