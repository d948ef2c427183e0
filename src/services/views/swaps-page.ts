import {
  segmentBase,
  segmentWords,
  swapEffect,
  swapsFor,
  type DatedSwap,
  type DiagnosedSegment,
  type Occasion,
  type SwapCode,
  type SwapEffect,
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
  readonly compared: (SwapEffect & { readonly deviceName: string }) | null;
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

const dated = (swap: StoredSwap): DatedSwap => ({ ...swap, what: swap.what as SwapCode });

/** What each swap did. `devices`: those of the office. */
export function shownSwaps(
  swaps: readonly StoredSwap[],
  segments: readonly DiagnosedSegment[],
  occasions: readonly Occasion[],
  devices: readonly { readonly id: string; readonly name: string }[],
): ShownSwap[] {
  const words = new Map(segments.map((segment) => [segmentBase(segment.id), segmentWords(segment)]));
  const nameOf = (deviceId: string) => devices.find(({ id }) => id === deviceId)?.name ?? '';
  const all = swaps.map(dated);
  const compared = (swap: StoredSwap) => {
    const effect = swapEffect(dated(swap), all, occasions);
    return effect === null ? null : { ...effect, deviceName: nameOf(effect.deviceId) };
  };
  return swaps.map((swap) => ({
    ...{ id: swap.id, what: swap.what as SwapCode, note: swap.note, atMs: swap.atMs, byName: swap.byName },
    words: words.get(swap.segmentId) ?? 'a part that no run has crossed since',
    compared: compared(swap),
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
