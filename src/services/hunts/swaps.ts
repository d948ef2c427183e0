import { SWAPS, type SwapCode } from '@/core';
import type { StoredSwap } from '@/store';
import { done, failed, type Outcome } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { findingsAreDue } from '../diagnosis';

export interface SwapOrder {
  readonly siteId: string;
  readonly what: SwapCode;
  /** Id of the segment as it was called before any swap; see services/diagnosis. */
  readonly segmentId: string;
  readonly deviceId: string | null;
  readonly note: string;
  readonly huntId: string | null;
  /** When it was done; null: now. */
  readonly atMs: number | null;
}

/** The same swap within this is one that was pressed twice. */
const TWICE_MS = 2 * 60_000;
/** Clocks differ, and a swap may be written down before it is done: not by more than this. */
const AHEAD_MS = 10 * 60_000;

const KIND_OF: Readonly<Record<string, string>> = { link: 'unknown-link', far: 'far-network', 'far-line': 'far-line' };

function fits({ what, segmentId }: SwapOrder): boolean {
  const [head] = segmentId.split(':');
  const kind = KIND_OF[head!] ?? head!;
  return what === 'other' || (SWAPS[what].changes as readonly string[]).includes(kind);
}

/** Writes a swap down. From then on what was measured before says nothing about that segment any more. */
export async function noteSwap(
  context: ConsoleContext,
  byName: string,
  order: SwapOrder,
): Promise<Outcome<StoredSwap, 'site-missing' | 'swap-twice' | 'swap-other-place' | 'swap-in-future'>> {
  const { store } = context;
  const nowMs = context.wallMs();
  const atMs = order.atMs ?? nowMs;
  if ((await store.sites.byId(order.siteId)) === null) return failed('site-missing');
  if (!fits(order)) return failed('swap-other-place');
  if (atMs > nowMs + AHEAD_MS) return failed('swap-in-future');
  const before = await store.findings.swapsOf(order.siteId);
  const twice = before.find(
    (swap) => swap.segmentId === order.segmentId && swap.what === order.what && Math.abs(swap.atMs - atMs) < TWICE_MS,
  );
  if (twice !== undefined) return failed('swap-twice');
  const { siteId, what, segmentId, deviceId, note, huntId } = order;
  const swap: StoredSwap = {
    ...{ id: context.newId(), siteId, what, segmentId, deviceId, note, huntId, atMs, byName, undoneAtMs: null },
  };
  await store.findings.saveSwap(swap);
  if ((await store.sites.byId(siteId))?.demo === true) await context.practiceHands?.swapped(swap);
  findingsAreDue(context, siteId);
  return done(swap);
}

/** Takes a swap back that was written down by mistake: evidence from before it counts again. */
export async function undoSwap(context: ConsoleContext, swapId: string): Promise<Outcome<StoredSwap, 'swap-unknown'>> {
  const swap = await context.store.findings.swap(swapId);
  if (swap === null || swap.undoneAtMs !== null) return failed('swap-unknown');
  const undone = { ...swap, undoneAtMs: context.wallMs() };
  await context.store.findings.saveSwap(undone);
  findingsAreDue(context, swap.siteId);
  return done(undone);
}
