import type { LinkCeiling } from '../ceiling/link-ceiling-type';
import type { Plan } from '../domain/plan';
import type { Occasion } from './observation';
import { classesOf, inTime } from './proof';
import type { Said } from './said';
import { segmentBase, type DiagnosedSegment } from './segment';
import type { DatedSwap } from './swap-effect';

/** A device as the diagnosis knows it. */
export interface DiagnosedDevice {
  readonly id: string;
  readonly name: string;
  /** What its cable came up at, bits per second; null: no cable, or nobody read it. */
  readonly cableBps: number | null;
  readonly cable: LinkCeiling | null;
}

/** All that is known of an office, of the last weeks. */
export interface DiagnosisInput {
  readonly segments: readonly DiagnosedSegment[];
  readonly occasions: readonly Occasion[];
  readonly devices: readonly DiagnosedDevice[];
  readonly plan: Plan | null;
  /** What a tunnel gives at best, by id of its segment. */
  readonly tunnelPlans: ReadonlyMap<string, Plan>;
  /** What the outside peer's own port can show, bits per second; null: not known. */
  readonly outsidePeerBps: number | null;
  /** Occasions of before tell only the hours of a line, UTC epoch ms. */
  readonly freshFromMs: number;
  /** What was changed on purpose, and not taken back. */
  readonly swaps: readonly DatedSwap[];
  /** What people say beside it. */
  readonly said: Said;
  /** How many swaps each part has been through by now, by `segmentBase`; absent: none. What was before is history. */
  readonly generations: ReadonlyMap<string, number>;
}

/**
 * Ids of the segments that stand now: of each part the one after its last swap, and of a cable the one that came up as it
 * did last. Others tell what was, and are neither found nor drawn.
 */
export function standingIds({
  segments,
  occasions,
  generations,
}: Pick<DiagnosisInput, 'segments' | 'occasions' | 'generations'>): ReadonlySet<string> {
  const seenAt = new Map<string, number>();
  for (const of of classesOf(occasions).values()) {
    const lastMs = inTime(of).at(-1)!.startedAtMs;
    for (const id of of[0]!.path) seenAt.set(id, Math.max(seenAt.get(id) ?? -Infinity, lastMs));
  }
  const standing = new Map<string, DiagnosedSegment>();
  for (const segment of segments) {
    const base = segmentBase(segment.id);
    if (segment.generation !== (generations.get(base) ?? 0)) continue;
    const other = standing.get(base);
    const isLater = other === undefined || (seenAt.get(segment.id) ?? -1) > (seenAt.get(other.id) ?? -1);
    if (isLater) standing.set(base, segment);
  }
  return new Set([...standing.values()].map(({ id }) => id));
}
