import type { Direction } from '../domain/plan';
import { mayAccuse, type Occasion } from './observation';
import { posteriorOf, type Evidence, type Explanation } from './posterior';
import { madeOnce } from '../stats/made-once';
import { changesOf, classesOf, inTime, proofsOf, soundOf, type ClassOfOccasions, type Proof } from './proof';
import { NOTHING_SAID, ruledOutSigns, witnessesOf, type Said } from './said';
import { priorOf, type DiagnosedSegment, type SoundRange } from './segment';

/** From this probability on a segment is found. */
export const FOUND_FROM = 0.9;
/** Of one class of path the newest so many occasions are weighed: a year of evenings is not a thousand witnesses. */
const MOST_OF_A_CLASS = 6;
/** Segments that are found are taken as known and the rest is weighed again, so often at most. */
const MOST_ROUNDS = 8;
/** A found segment carries its capacity, within this factor either way. */
const KNOWN_WITHIN = 1.15;
/** From this share of what could be asked of it on, a segment of unknown capacity is cleared. */
const CLEARED_FROM = 0.9;
/** How much likelier it is that the engine calls a device slow when it is. That it keeps quiet says little. */
const SLOW_SAID = Math.log(0.5 / 0.03);

/** Segments that hang together: what is learnt of one changes what is thought of the others. */
export interface Entanglement {
  /** Ids of the segments that are not cleared. */
  readonly suspects: readonly string[];
  /** In ids, the likeliest first. */
  readonly explanations: readonly NamedExplanation[];
  readonly evidence: readonly Evidence[];
}

export interface NamedExplanation extends Omit<Explanation, 'suspects'> {
  readonly suspects: readonly string[];
}

/** What is thought of every segment in one direction. */
export interface Suspicion {
  readonly proofs: ReadonlyMap<string, Proof>;
  /** How likely each segment is to hold back, 0 to 1. Cleared ones: 0. */
  readonly probability: ReadonlyMap<string, number>;
  /** At about which rate, bits per second, where it is likelier than not. */
  readonly capacityBps: ReadonlyMap<string, number>;
  readonly cleared: ReadonlySet<string>;
  readonly entanglements: readonly Entanglement[];
}

/** Newest occasions of each class, from when it turned slow on where it did; the newest first. */
function weighedOf(occasions: readonly Occasion[], changes: ReadonlyMap<string, number>, direction: Direction) {
  return [...classesOf(occasions)].flatMap(([key, of]) => {
    const fromMs = changes.get(key) ?? -Infinity;
    return weighedOnce(of, `${direction} ${fromMs}`, () => newestThatAccuse(of, fromMs, direction));
  });
}

const weighedOnce = madeOnce<ClassOfOccasions, readonly Occasion[]>();

function newestThatAccuse(of: ClassOfOccasions, fromMs: number, direction: Direction): Occasion[] {
  const weighed: Occasion[] = [];
  const newest = inTime(of);
  for (let place = newest.length - 1; place >= 0 && weighed.length < MOST_OF_A_CLASS; place -= 1) {
    const occasion = newest[place]!;
    if (occasion[direction] !== null && mayAccuse(occasion) && occasion.startedAtMs >= fromMs) weighed.push(occasion);
  }
  return weighed;
}

function clearedOf(
  segments: ReadonlyMap<string, DiagnosedSegment>,
  proofs: ReadonlyMap<string, Proof>,
  occasions: readonly Occasion[],
  direction: Direction,
): Set<string> {
  const asked = new Map<string, number>();
  for (const [first] of classesOf(occasions).values()) {
    const { path } = first!;
    const sound = soundOf(path, segments, direction);
    for (const id of path) asked.set(id, Math.max(asked.get(id) ?? 0, sound?.highBps ?? 0));
  }
  const cleared = new Set<string>();
  for (const [id, segment] of segments) {
    const proven = proofs.get(id)?.bps ?? 0;
    const sound = segment.sound[direction];
    const wanted = sound === null ? CLEARED_FROM * (asked.get(id) ?? Infinity) : sound.lowBps;
    // What was never on a path that is known to carry anything cannot be cleared, nor accused.
    if (wanted > 0 && proven >= wanted) cleared.add(id);
  }
  return cleared;
}

/** Places of a list, joined where an occasion has both on its path. */
function components(ids: readonly string[], paths: readonly (readonly string[])[]): string[][] {
  const parent = new Map(ids.map((id) => [id, id]));
  const rootOf = (id: string): string => {
    const up = parent.get(id)!;
    if (up === id) return id;
    const root = rootOf(up);
    parent.set(id, root);
    return root;
  };
  for (const [first, ...others] of paths)
    if (first !== undefined) for (const other of others) parent.set(rootOf(other), rootOf(first));
  const groups = new Map<string, string[]>();
  for (const id of ids) groups.set(rootOf(id), [...(groups.get(rootOf(id)) ?? []), id]);
  return [...groups.values()];
}

/** What the engine says of the device itself, and what a person has ruled out. */
function signsOf(segment: DiagnosedSegment, limited: ReadonlySet<string>, { ruledOut }: Said): number {
  const { kind, deviceId } = segment;
  const left = ruledOutSigns(segment, ruledOut);
  if (kind !== 'device') return left;
  const said = deviceId !== null && limited.has(deviceId);
  return left + (said ? SLOW_SAID : 0);
}

const limitedOnce = madeOnce<ClassOfOccasions, boolean>();

/** Devices of which the engine says that they cannot go faster. */
function limitedDevices(occasions: readonly Occasion[]): ReadonlySet<string> {
  const isLimited = (of: ClassOfOccasions) =>
    limitedOnce(of, 'limited', () => of.some(({ flags }) => flags.includes('device-limited')));
  return new Set([...classesOf(occasions).values()].filter(isLimited).map(([first]) => first!.deviceId));
}

interface Known {
  readonly sound: SoundRange | null;
  readonly found: boolean;
}

/**
 * What is thought of each segment in one direction: proven ones are cleared, the rest is weighed by exact inference where
 * it hangs together, with what people say. What is found is then taken as known, so that a third and a fourth fault are found as well.
 */
export function suspicionOf(
  all: readonly DiagnosedSegment[],
  occasions: readonly Occasion[],
  direction: Direction,
  said: Said = NOTHING_SAID,
): Suspicion {
  const segments = new Map(all.map((segment) => [segment.id, segment]));
  const changes = changesOf(occasions, segments, direction);
  const proofs = proofsOf(occasions, changes, direction);
  const weighed = weighedOf(occasions, changes, direction);
  const cleared = clearedOf(segments, proofs, weighed, direction);
  const known = new Map<string, Known>(all.map(({ id, sound }) => [id, { sound: sound[direction], found: false }]));
  const probability = new Map<string, number>(all.map(({ id }) => [id, 0]));
  const capacityBps = new Map<string, number>();
  const limited = limitedDevices(occasions);
  const open = (id: string) => !cleared.has(id) && !known.get(id)!.found;

  let entanglements: Entanglement[] = [];
  for (let round = 0; round < MOST_ROUNDS; round += 1) {
    const suspectIds = all.map(({ id }) => id).filter(open);
    const paths = weighed.map(({ path }) => path.filter(open));
    entanglements = components(suspectIds, paths).flatMap((ids) => {
      const inside = new Set(ids);
      const evidence = weighed.filter(({ path }) => path.some((id) => inside.has(id)));
      return evidence.length === 0
        ? []
        : [weighComponent(ids, evidence, { segments, known, limited, direction, said })];
    });
    let anew = false;
    for (const { explanations, suspects } of entanglements)
      for (const id of suspects) {
        const of = explanations.filter((each) => each.suspects.includes(id));
        const total = of.reduce((sum, each) => sum + each.probability, 0);
        probability.set(id, total);
        if (total <= 0.3) continue;
        const capacity = Math.exp(
          of.reduce(
            (sum, each) => sum + each.probability * Math.log(each.capacitiesBps[each.suspects.indexOf(id)]!),
            0,
          ) / total,
        );
        capacityBps.set(id, capacity);
        if (total < FOUND_FROM) continue;
        known.set(id, { found: true, sound: { lowBps: capacity / KNOWN_WITHIN, highBps: capacity * KNOWN_WITHIN } });
        anew = true;
      }
    if (!anew) break;
  }
  return { proofs, probability, capacityBps, cleared, entanglements };
}

interface Weighing {
  readonly segments: ReadonlyMap<string, DiagnosedSegment>;
  readonly known: ReadonlyMap<string, Known>;
  readonly limited: ReadonlySet<string>;
  readonly direction: Direction;
  readonly said: Said;
}

function weighComponent(
  ids: readonly string[],
  weighed: readonly Occasion[],
  { segments, known, limited, direction, said }: Weighing,
): Entanglement {
  // Behind the suspects stand the others on their paths, which limit but cannot be accused.
  const others = [...new Set(weighed.flatMap(({ path }) => path))].filter((id) => !ids.includes(id));
  const places = new Map([...ids, ...others].map((id, place) => [id, place]));
  const suspects = [
    ...ids.map((id) => {
      const segment = segments.get(id)!;
      return { prior: priorOf(segment), sound: known.get(id)!.sound, signs: signsOf(segment, limited, said) };
    }),
    ...others.map((id) => ({ prior: 0, sound: known.get(id)?.sound ?? null, signs: 0 })),
  ];
  const evidence: Evidence[] = weighed.map(({ path, [direction]: rate }) => ({
    path: path.map((id) => places.get(id)!),
    bps: rate!.medianBps,
    spread: rate!.spread,
  }));
  const names = [...ids, ...others];
  // What was found on a way explains the complaint of it.
  const complaints = witnessesOf(said.complaints)
    .filter(({ path }) => !path.some((id) => known.get(id)?.found))
    .map(({ path }) => path.filter((id) => ids.includes(id)).map((id) => places.get(id)!))
    .filter((path) => path.length > 0);
  const { explanations } = posteriorOf(suspects, evidence, complaints);
  return {
    suspects: ids,
    explanations: explanations
      .filter((each) => each.suspects.every((place) => place < ids.length))
      .map((each) => ({ ...each, suspects: each.suspects.map((place) => names[place]!) })),
    evidence,
  };
}
