import type { Direction } from '../domain/plan';
import { rateBloat } from '../judge/bloat-rating';
import { groupedBy } from '../stats/grouped';
import { acrossOf, capacityFindings, leastFinding, type CapacityInput } from './capacity-findings';
import { standingIds, type DiagnosisInput } from './diagnosis-input';
import { factFindings } from './fact-findings';
import { inOrder, type Finding } from './finding';
import type { Occasion } from './observation';
import { partedSuspicion } from './parted-hours';
import { chosenOf, classesOf, freshOf, type Proof } from './proof';
import { deepQueuesOf, type DeepQueue } from './queues';
import { segmentBase, type DiagnosedSegment } from './segment';
import type { Suspicion } from './suspicion';
import { swapFindings } from './swap-effect';

/** What is thought of one segment, in both directions. */
export interface SegmentState {
  readonly segment: DiagnosedSegment;
  readonly proven: { readonly down: Proof | null; readonly up: Proof | null };
  /** How likely it is to hold back, 0 to 1. */
  readonly suspicion: { readonly down: number; readonly up: number };
  /** Devices whose runs cross it. */
  readonly deviceIds: readonly string[];
}

export interface Diagnosis {
  /** Worst first. */
  readonly findings: readonly Finding[];
  readonly segments: readonly SegmentState[];
  /** Occasions that it was made of. */
  readonly occasions: number;
}

const DIRECTIONS = ['down', 'up'] as const;
const sinceOf = (occasions: readonly Occasion[], ids: readonly string[]) =>
  occasions
    .filter(({ runIds }) => runIds.some((id) => ids.includes(id)))
    .reduce((least, { startedAtMs }) => Math.min(least, startedAtMs), Infinity);

function queueFinding(queue: DeepQueue, { segments, occasions }: DiagnosisInput): Finding {
  const { where, direction, addedMs, deviceIds, runIds, against } = queue;
  const across = occasions.filter((occasion) => occasion.runIds.some((id) => runIds.includes(id)));
  const kinds = where === 'inside' ? ['air', 'cable', 'unknown-link', 'vpn'] : [where];
  const segment = segments.find(
    (each) => kinds.includes(each.kind) && across.some(({ path }) => path.includes(each.id)),
  );
  return {
    key: `queue-too-deep ${direction} ${segment === undefined ? where : segmentBase(segment.id)}`,
    facts: { code: 'queue-too-deep', where, direction, addedMs, rating: rateBloat(addedMs)! },
    strength: deviceIds.length > 1 || runIds.length > 2 ? 'found' : 'likely',
    segments: segment === undefined ? [] : [segment],
    ...{ hours: null, deviceIds },
    sinceMs: sinceOf(occasions, runIds),
    evidence: { for: runIds, against },
    // Whoever waits a second waits as if nine tenths of the rate were gone.
    weight: deviceIds.length * Math.min(1, addedMs / 250),
  };
}

/** What one finding says already, another does not say again. */
function withoutDoubles(findings: readonly Finding[]): Finding[] {
  const least = findings.filter(({ facts }) => facts.code === 'line-below-least');
  const lineQueues = findings.filter(({ facts }) => facts.code === 'queue-too-deep' && facts.where === 'line');
  return mergedDirections(findings).filter(({ facts, segments }) => {
    if (facts.code === 'line-below-plan') return least.length === 0;
    // Through a tunnel one waits in the same queue.
    if (facts.code === 'queue-too-deep' && facts.where === 'tunnel')
      return !lineQueues.some(
        (queue) => queue.facts.code === 'queue-too-deep' && queue.facts.direction === facts.direction,
      );
    return facts.code !== 'segment-holds-back' || segments.length > 0;
  });
}

/** One segment that holds back both ways is one finding: that of the direction which loses more. */
function mergedDirections(findings: readonly Finding[]): Finding[] {
  const directionless = (key: string) => key.replace(/ (down|up) /, ' ');
  const perSegment = new Set(['segment-holds-back', 'line-below-plan', 'tunnel-slower-end', 'contradicting-runs']);
  const groups = groupedBy(findings, ({ key, facts }) => (perSegment.has(facts.code) ? directionless(key) : key));
  return [...groups.values()].map((group) => {
    const [worst, other] = [...group].sort((a, b) => b.weight - a.weight);
    if (other === undefined) return worst!;
    const all = (pick: (finding: Finding) => readonly string[]) => [...new Set([...pick(worst!), ...pick(other)])];
    return {
      ...worst!,
      key: directionless(worst!.key),
      deviceIds: all(({ deviceIds }) => deviceIds),
      evidence: { for: all(({ evidence }) => evidence.for), against: all(({ evidence }) => evidence.against) },
    };
  });
}

function statesOf(input: DiagnosisInput, of: Readonly<Record<Direction, Suspicion>>): SegmentState[] {
  const crossing = new Map<string, Set<string>>(input.segments.map(({ id }) => [id, new Set()]));
  for (const [first] of classesOf(input.occasions).values())
    for (const id of first!.path) crossing.get(id)?.add(first!.deviceId);
  return input.segments.map((segment) => ({
    segment,
    proven: { down: of.down.proofs.get(segment.id) ?? null, up: of.up.proofs.get(segment.id) ?? null },
    suspicion: {
      down: of.down.probability.get(segment.id) ?? 0,
      up: of.up.probability.get(segment.id) ?? 0,
    },
    deviceIds: [...(crossing.get(segment.id) ?? [])],
  }));
}

/** From everything that is known of an office to what stands out in it, and what is thought of each segment. */
export function diagnose(whole: DiagnosisInput): Diagnosis {
  const standing = standingIds(whole);
  const fresh = freshOf(whole.occasions, whole.freshFromMs);
  // What was measured before a swap speaks of what stood there then.
  const now: DiagnosisInput = {
    ...whole,
    segments: whole.segments.filter(({ id }) => standing.has(id)),
    occasions: chosenOf(fresh, (of) => (of[0]!.path.every((id) => standing.has(id)) ? of : [])),
  };
  const parted = { down: partedSuspicion(whole, fresh, 'down'), up: partedSuspicion(whole, fresh, 'up') };
  const deviceNames = new Map(whole.devices.map(({ id, name }) => [id, name]));
  const ofCapacity = DIRECTIONS.flatMap((direction) => {
    const { input, suspicion } = parted[direction];
    const capacity: CapacityInput = {
      segments: new Map(input.segments.map((segment) => [segment.id, segment])),
      ...{ occasions: input.occasions, across: acrossOf(input.occasions), direction, suspicion, standing },
      ...{ plan: whole.plan, deviceNames },
    };
    const least = leastFinding(capacity);
    return [...capacityFindings(capacity), ...(least === null ? [] : [least])];
  });
  const findings = [
    ...factFindings(now),
    ...ofCapacity,
    ...DIRECTIONS.flatMap((direction) => parted[direction].sag ?? []),
    ...swapFindings(whole),
    ...deepQueuesOf(now.occasions).map((queue) => queueFinding(queue, now)),
  ];
  return {
    findings: inOrder(withoutDoubles(findings)),
    segments: statesOf(now, { down: parted.down.suspicion, up: parted.up.suspicion }),
    occasions: fresh.length,
  };
}
