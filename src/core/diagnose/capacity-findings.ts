import type { Direction, Plan } from '../domain/plan';
import { planPayloadBps } from '../domain/plan';
import { groupedBy } from '../stats/grouped';
import { median } from '../stats/percentile';
import type { Finding, FindingFacts, Strength } from './finding';
import type { Occasion } from './observation';
import { madeOnce } from '../stats/made-once';
import { classesOf, fallsShort, soundOf, type ClassOfOccasions } from './proof';
import { segmentBase, type DiagnosedSegment, type SoundRange } from './segment';
import { FOUND_FROM, type NamedExplanation, type Suspicion } from './suspicion';

/** From these on a suspicion is worth a word. */
const LIKELY_FROM = 0.6;
const HINT_FROM = 0.25;
/** Explanations of one shortfall beside each other, at most. */
const MOST_ALTERNATIVES = 3;

export interface CapacityInput {
  readonly segments: ReadonlyMap<string, DiagnosedSegment>;
  readonly occasions: readonly Occasion[];
  /** By each segment: the classes of occasions with it on their path. */
  readonly across: ReadonlyMap<string, readonly (readonly Occasion[])[]>;
  readonly direction: Direction;
  readonly suspicion: Suspicion;
  /** What stands now: what a swap has taken away is no finding any more. */
  readonly standing: ReadonlySet<string>;
  readonly plan: Plan | null;
  /** Names of devices, for whom one is compared with. */
  readonly deviceNames: ReadonlyMap<string, string>;
}

function strengthOf(probability: number): Strength | null {
  if (probability >= FOUND_FROM) return 'found';
  if (probability >= LIKELY_FROM) return 'likely';
  return probability >= HINT_FROM ? 'hint' : null;
}

export function acrossOf(occasions: readonly Occasion[]): ReadonlyMap<string, readonly (readonly Occasion[])[]> {
  const across = new Map<string, (readonly Occasion[])[]>();
  for (const of of classesOf(occasions).values())
    for (const id of of[0]!.path) {
      const before = across.get(id);
      if (before === undefined) across.set(id, [of]);
      else before.push(of);
    }
  return across;
}

/** Occasions across a segment that fall short, and those across it that do not. */
function split({ across, segments, direction }: CapacityInput, ids: readonly string[]) {
  const short: Occasion[] = [];
  const fine: Occasion[] = [];
  for (const of of new Set(ids.flatMap((id) => across.get(id) ?? []))) {
    const sound = soundOf(of[0]!.path, segments, direction);
    const told = splitOnce(of, `${direction} ${sound?.lowBps}`, () => splitOf(of, sound, direction));
    for (const each of told.short) short.push(each);
    for (const each of told.fine) fine.push(each);
  }
  return { short, fine };
}

type Split = Readonly<Record<'short' | 'fine', readonly Occasion[]>>;
const splitOnce = madeOnce<ClassOfOccasions, Split>();

function splitOf(of: ClassOfOccasions, sound: SoundRange | null, direction: Direction): Split {
  const told = of.filter(({ [direction]: rate }) => rate !== null);
  const isShort = ({ [direction]: rate }: Occasion) => fallsShort(rate!.medianBps, sound);
  return { short: told.filter(isShort), fine: told.filter((each) => !isShort(each)) };
}

const fastestOnce = madeOnce<ClassOfOccasions, number>();
const fastestOf = (of: ClassOfOccasions, direction: Direction) =>
  fastestOnce(of, direction, () =>
    of.reduce((best, { [direction]: rate }) => Math.max(best, rate?.medianBps ?? -Infinity), -Infinity),
  );

/** Kinds that are told by a device beside it; air is told by the same device on another link. */
const TOLD_BY_OTHERS = ['device', 'cable', 'unknown-link', 'hop', 'router', 'line', 'far-network', 'peer'];

/** The best that another device made over what the short ones share with it. */
function comparedWith(input: CapacityInput, short: readonly Occasion[], suspects: readonly string[]) {
  const { occasions, direction, deviceNames, segments } = input;
  if (!suspects.every((id) => TOLD_BY_OTHERS.includes(segments.get(id)!.kind))) return null;
  const shared = new Set([...new Set(short.map(({ path }) => path))].flat().filter((id) => !suspects.includes(id)));
  const reach = short[0]?.reach;
  const slow = new Set(short.map(({ deviceId }) => deviceId));
  let best: { readonly deviceId: string; readonly bps: number } | null = null;
  for (const of of classesOf(occasions).values()) {
    const { path, deviceId, reach: far } = of[0]!;
    if (far !== reach || slow.has(deviceId) || !path.some((id) => shared.has(id))) continue;
    if (path.some((id) => suspects.includes(id))) continue;
    const bps = fastestOf(of, direction);
    if (bps > (best?.bps ?? -Infinity)) best = { deviceId, bps };
  }
  return best === null ? null : { deviceName: deviceNames.get(best.deviceId) ?? best.deviceId, bps: best.bps };
}

function factsOf(input: CapacityInput, kind: DiagnosedSegment['kind'], ids: readonly string[], probability: number) {
  const { segments, direction, plan } = input;
  const { short, fine } = split(input, ids);
  // Figures of one reach: a median over runs inside and out would be that of no run.
  const told = [...groupedBy(short, ({ reach }) => reach).values()].sort((a, b) => b.length - a.length)[0] ?? [];
  const measuredBps = median(told.map(({ [direction]: rate }) => rate!.medianBps));
  const expectedBps = median(told.flatMap(({ path }) => soundOf(path, segments, direction)?.highBps ?? []));
  if (measuredBps === null || expectedBps === null) return null;
  const facts: FindingFacts =
    kind === 'line' && plan !== null && ids.length === 1
      ? { code: 'line-below-plan', measuredBps, plan, direction, probability }
      : {
          ...{ code: 'segment-holds-back', measuredBps, expectedBps, direction, probability },
          compared: comparedWith(input, told, ids),
        };
  return { facts, short, fine, lostShare: Math.max(0, 1 - measuredBps / expectedBps) };
}

/** Segments that no explanation parts: each explains the same shortfall about as well. */
function alternativesOf(
  explanations: readonly NamedExplanation[],
  id: string,
  { suspicion, standing }: CapacityInput,
): string[] {
  const singles = explanations.filter(({ suspects }) => suspects.length === 1).map(({ suspects }) => suspects[0]!);
  return [
    id,
    ...singles.filter(
      (other) => other !== id && standing.has(other) && suspicion.probability.get(other)! >= HINT_FROM / 2,
    ),
  ].slice(0, MOST_ALTERNATIVES);
}

/**
 * Findings of what holds back, in one direction. A segment that is found stands alone; where several explain the same
 * shortfall they stand together, the likeliest first, and none is a finding of its own.
 */
export function capacityFindings(input: CapacityInput): Finding[] {
  const { segments, suspicion, direction, standing } = input;
  const told = new Set<string>();
  const findings: Finding[] = [];
  const byProbability = [...suspicion.probability].sort(([, a], [, b]) => b - a);
  for (const [id, probability] of byProbability) {
    const segment = segments.get(id)!;
    if (told.has(id) || !standing.has(id)) continue;
    const entangled = suspicion.entanglements.find(({ suspects }) => suspects.includes(id));
    const ids =
      probability >= FOUND_FROM || entangled === undefined ? [id] : alternativesOf(entangled.explanations, id, input);
    const together = Math.min(
      1,
      ids.reduce((sum, each) => sum + suspicion.probability.get(each)!, 0),
    );
    const strength = strengthOf(ids.length > 1 ? Math.min(together, 0.89) : probability);
    const made = strength === null ? null : factsOf(input, segment.kind, ids, probability);
    if (strength === null || made === null) continue;
    for (const each of ids) told.add(each);
    const { facts, short, fine, lostShare } = made;
    const deviceIds = [...new Set(short.map(({ deviceId }) => deviceId))];
    findings.push({
      key: `${facts.code} ${direction} ${segmentBase(id)}`,
      ...{ facts, strength, deviceIds, hours: null },
      segments: ids.map((each) => segments.get(each)!),
      sinceMs: Math.min(...short.map(({ startedAtMs }) => startedAtMs)),
      evidence: { for: short.flatMap(({ runIds }) => runIds), against: fine.flatMap(({ runIds }) => runIds) },
      weight: deviceIds.length * lostShare,
    });
  }
  return findings;
}

/** A line that gives less than the least that its contract names is a finding of its own, whoever else is suspected. */
export function leastFinding(input: CapacityInput): Finding | null {
  const { direction, plan, suspicion, segments, standing } = input;
  const line = [...segments.values()].find(({ id, kind }) => kind === 'line' && standing.has(id));
  const leastBps = direction === 'down' ? plan?.leastDownBps : plan?.leastUpBps;
  if (line === undefined || plan === null || leastBps === null || leastBps === undefined) return null;
  if ((suspicion.probability.get(line.id) ?? 0) < LIKELY_FROM) return null;
  const { short } = split(input, [line.id]);
  const measuredBps = median(short.map(({ [direction]: rate }) => rate!.medianBps));
  if (measuredBps === null || measuredBps >= leastBps) return null;
  const deviceIds = [...new Set(short.map(({ deviceId }) => deviceId))];
  return {
    key: `line-below-least ${direction} ${segmentBase(line.id)}`,
    facts: { code: 'line-below-least', measuredBps, leastBps, plan, direction },
    strength: 'found',
    ...{ segments: [line], deviceIds, hours: null },
    sinceMs: Math.min(...short.map(({ startedAtMs }) => startedAtMs)),
    evidence: { for: short.flatMap(({ runIds }) => runIds), against: [] },
    weight: deviceIds.length * (1 - measuredBps / planPayloadBps(plan, direction)),
  };
}
