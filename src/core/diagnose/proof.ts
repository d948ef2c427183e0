import type { Direction } from '../domain/plan';
import { groupedBy } from '../stats/grouped';
import { madeOnce } from '../stats/made-once';
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

/** Occasions of one class, in the order in which they came to be known. */
export type ClassOfOccasions = readonly Occasion[];
type Classes = ReadonlyMap<string, ClassOfOccasions>;

interface KnownClasses {
  /** How many there were: a list that has grown since is another one. */
  readonly of: number;
  readonly byClass: Classes;
}
const classes = new WeakMap<readonly Occasion[], KnownClasses>();

/** Lists that begin with an occasion; of those that hold the same the first one stands for all. */
const beginningWith = new WeakMap<Occasion, ClassOfOccasions[]>();
const MOST_BEGINNING = 4;
const isSame = (one: ClassOfOccasions, other: ClassOfOccasions) =>
  one.length === other.length && one.every((each, place) => each === other[place]);

/** The same occasions are the same list, so that what was made of them is known the next time. */
function settled(of: ClassOfOccasions): ClassOfOccasions {
  const known = beginningWith.get(of[0]!) ?? [];
  const same = known.find((each) => isSame(each, of));
  if (same !== undefined) return same;
  beginningWith.set(of[0]!, [of, ...known.slice(0, MOST_BEGINNING - 1)]);
  return of;
}

/** Occasions of each class: an office has many occasions and few ways. */
export function classesOf(occasions: readonly Occasion[]): Classes {
  const known = classes.get(occasions);
  if (known?.of === occasions.length) return known.byClass;
  const byClass = new Map([...groupedBy(occasions, classOf)].map(([key, of]) => [key, settled(of)]));
  classes.set(occasions, { of: occasions.length, byClass });
  return byClass;
}

/** Some of the occasions, chosen within each class; their classes need not be found anew. */
export function chosenOf(
  occasions: readonly Occasion[],
  choose: (of: ClassOfOccasions) => ClassOfOccasions,
): readonly Occasion[] {
  const byClass = new Map<string, ClassOfOccasions>();
  // One by one: there are thousands of them.
  const all: Occasion[] = [];
  for (const [key, of] of classesOf(occasions)) {
    const chosen = choose(of);
    if (chosen.length === 0) continue;
    byClass.set(key, chosen === of ? of : settled(chosen));
    for (const occasion of chosen) all.push(occasion);
  }
  classes.set(all, { of: all.length, byClass });
  return all;
}

/** Those from a time on. */
export function freshOf(occasions: readonly Occasion[], fromMs: number): readonly Occasion[] {
  return chosenOf(occasions, (of) =>
    inTime(of)[0]!.startedAtMs >= fromMs ? of : of.filter(({ startedAtMs }) => startedAtMs >= fromMs),
  );
}

const sortedOnce = madeOnce<ClassOfOccasions, ClassOfOccasions>();

/** From the oldest on; the same list where it is so already. */
export function inTime(of: ClassOfOccasions): ClassOfOccasions {
  return sortedOnce(of, 'in time', () => {
    const isSo = of.every((each, place) => place === 0 || of[place - 1]!.startedAtMs <= each.startedAtMs);
    return isSo ? of : [...of].sort((a, b) => a.startedAtMs - b.startedAtMs);
  });
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
  for (const [key, of] of classesOf(occasions)) {
    const sound = soundOf(of[0]!.path, segments, direction);
    const changedAtMs = changedOnce(of, `${direction} ${sound?.lowBps}`, () => changedAt(of, sound, direction));
    if (changedAtMs !== null) changes.set(key, changedAtMs);
  }
  return changes;
}

const changedOnce = madeOnce<ClassOfOccasions, number | null>();

function changedAt(of: ClassOfOccasions, sound: SoundRange | null, direction: Direction): number | null {
  let wasSound = false;
  let changedAtMs: number | null = null;
  for (const { startedAtMs, [direction]: rate } of inTime(of)) {
    if (rate === null) continue;
    if (!fallsShort(rate.medianBps, sound)) {
      wasSound = true;
      changedAtMs = null;
    } else if (wasSound) changedAtMs ??= startedAtMs;
  }
  return changedAtMs;
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
  const ofAll = classesOf(occasions);
  const staleBefore = new Map<string, number>();
  for (const [key, of] of ofAll) {
    const changedAt = changes.get(key);
    if (changedAt === undefined) continue;
    for (const id of of[0]!.path) staleBefore.set(id, Math.max(staleBefore.get(id) ?? 0, changedAt));
  }
  const proofs = new Map<string, Proof>();
  for (const of of ofAll.values()) {
    const { path } = of[0]!;
    // The best since each of those times: most segments of a path share one.
    const best = new Map<number, Proof | null>();
    for (const id of path) {
      const fromMs = staleBefore.get(id) ?? -Infinity;
      if (!best.has(fromMs))
        best.set(
          fromMs,
          bestOnce(of, `${direction} ${fromMs}`, () => bestOf(of, fromMs, direction)),
        );
      const proof = best.get(fromMs)!;
      if (proof !== null && (proofs.get(id)?.bps ?? 0) < proof.bps) proofs.set(id, proof);
    }
  }
  return proofs;
}

const bestOnce = madeOnce<ClassOfOccasions, Proof | null>();

/** The most that occasions from a time on have proven. */
function bestOf(occasions: readonly Occasion[], fromMs: number, direction: Direction): Proof | null {
  let best: Proof | null = null;
  for (const { startedAtMs, [direction]: rate } of occasions)
    if (rate !== null && startedAtMs >= fromMs && rate.provenBps > (best?.bps ?? 0))
      best = { bps: rate.provenBps, runId: rate.provenBy, atMs: startedAtMs };
  return best;
}
