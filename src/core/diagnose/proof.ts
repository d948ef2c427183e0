import type { Direction } from '../domain/plan';
import type { Occasion } from './observation';
import type { DiagnosedSegment, SoundRange } from './segment';

/** What a segment is proven to have carried, by which run. Bits per second. */
export interface Proof {
  readonly bps: number;
  readonly runId: string;
  readonly atMs: number;
}

/** A sound path's figure may lie so much below what its segments allow before anybody is suspected. */
const SHORT_BELOW = 0.9;

/** Keys that were made already: the same path is asked for many times. */
const keys = new WeakMap<readonly string[], string>();

/** The same device over the same segments: occasions of one class can be held against each other. */
export function classOf({ path }: Pick<Occasion, 'path'>): string {
  const known = keys.get(path);
  if (known !== undefined) return known;
  const key = path.join(' ');
  keys.set(path, key);
  return key;
}

/** What a path carries while all of it is sound, in one direction; null where nothing of it is known. */
export function soundOf(
  path: readonly string[],
  segments: ReadonlyMap<string, DiagnosedSegment>,
  direction: Direction,
): SoundRange | null {
  let sound: SoundRange | null = null;
  for (const id of path) {
    const own = segments.get(id)?.sound[direction] ?? null;
    if (own === null) continue;
    sound =
      sound === null
        ? own
        : { lowBps: Math.min(sound.lowBps, own.lowBps), highBps: Math.min(sound.highBps, own.highBps) };
  }
  return sound;
}

export function fallsShort(bps: number, sound: SoundRange | null): boolean {
  return sound !== null && bps < SHORT_BELOW * sound.lowBps;
}

/**
 * Since when each path falls short after it had been sound: proofs of before say nothing about what is on it any more.
 * By class of path; only those that changed.
 */
export function changesOf(
  occasions: readonly Occasion[],
  segments: ReadonlyMap<string, DiagnosedSegment>,
  direction: Direction,
): ReadonlyMap<string, number> {
  const changes = new Map<string, number>();
  const wasSound = new Set<string>();
  for (const occasion of [...occasions].sort((a, b) => a.startedAtMs - b.startedAtMs)) {
    const rate = occasion[direction];
    const key = classOf(occasion);
    if (rate === null) continue;
    if (!fallsShort(rate.medianBps, soundOf(occasion.path, segments, direction))) {
      wasSound.add(key);
      changes.delete(key);
    } else if (wasSound.has(key) && !changes.has(key)) changes.set(key, occasion.startedAtMs);
  }
  return changes;
}

/**
 * What each segment has been proven to carry: a run that carried 480 proves it of everything on its path. Proofs from
 * before a path on which the segment lies turned slow are stale, and left out.
 */
export function proofsOf(
  occasions: readonly Occasion[],
  changes: ReadonlyMap<string, number>,
  direction: Direction,
): ReadonlyMap<string, Proof> {
  const staleBefore = new Map<string, number>();
  for (const occasion of occasions) {
    const changedAt = changes.get(classOf(occasion));
    if (changedAt === undefined) continue;
    for (const id of occasion.path) staleBefore.set(id, Math.max(staleBefore.get(id) ?? 0, changedAt));
  }
  const proofs = new Map<string, Proof>();
  for (const { path, startedAtMs, [direction]: rate } of occasions) {
    if (rate === null) continue;
    for (const id of path) {
      if (startedAtMs < (staleBefore.get(id) ?? -Infinity)) continue;
      if ((proofs.get(id)?.bps ?? 0) < rate.provenBps)
        proofs.set(id, { bps: rate.provenBps, runId: rate.provenBy, atMs: startedAtMs });
    }
  }
  return proofs;
}
