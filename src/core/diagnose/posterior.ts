import { COMPLAINT_SAYS } from './said';
import type { SoundRange } from './segment';

/** Capacities at which a segment may hold back: so many, evenly spaced on the logarithm, below what is sound. */
const BINS = 12;
/** The lowest of them, as a share of the most that is sound. */
const LEAST_SHARE = 0.02;
/** A share of runs comes out anyhow: somebody began a download, a processor was busy. */
const ODD = 0.02;
/** Such runs lie anywhere over three decades. */
const ODD_DENSITY = ODD / Math.log(1000);
/** Spread of the runs of one occasion where it is not known, and the least that is believed. */
export const USUAL_SPREAD = 0.07;
const LEAST_SPREAD = 0.03;

/** A segment as the inference sees it, in one direction. Rates in bits per second. */
export interface Suspect {
  readonly prior: number;
  /** Null: what it carries is not known, so it limits nothing while it is sound. */
  readonly sound: SoundRange | null;
  /** Logarithm of how much likelier what else is known of it is when it holds back than when it does not. */
  readonly signs: number;
}

/** What one occasion says, in one direction. `path`: places in the list of suspects. */
export interface Evidence {
  readonly path: readonly number[];
  readonly bps: number;
  readonly spread: number | null;
}

/** One explanation: which segments hold back (none, one or two), how likely it is, and at about which capacities. */
export interface Explanation {
  readonly suspects: readonly number[];
  readonly probability: number;
  /** Capacity of each, bits per second: the mean over the bins on the logarithm. */
  readonly capacitiesBps: readonly number[];
}

export interface Posterior {
  /** The likeliest first; those below a thousandth are left out. */
  readonly explanations: readonly Explanation[];
  /** Of each suspect: how likely it is to hold back, alone or with another. */
  readonly marginal: readonly number[];
}

/** The bins of a suspect, the lowest first. `reference`: what stands for its sound rate where that is not known. */
export function binsOf(sound: SoundRange | null, referenceBps: number): SoundRange[] {
  const { lowBps, highBps } = sound ?? { lowBps: 0.9 * referenceBps, highBps: referenceBps };
  const least = Math.min(LEAST_SHARE * highBps, lowBps / 2);
  const step = Math.log(lowBps / least) / BINS;
  return Array.from({ length: BINS }, (_, bin) => ({
    lowBps: least * Math.exp(bin * step),
    highBps: least * Math.exp((bin + 1) * step),
  }));
}

const lower = (one: SoundRange, other: SoundRange): SoundRange => ({
  lowBps: Math.min(one.lowBps, other.lowBps),
  highBps: Math.min(one.highBps, other.highBps),
});

/** What a path carries while all of it is sound; null where nothing of it is known. */
export function soundOfPath(path: readonly number[], suspects: readonly Pick<Suspect, 'sound'>[]): SoundRange | null {
  const known = path.flatMap((place) => suspects[place]!.sound ?? []);
  return known.length === 0 ? null : known.reduce(lower);
}

/**
 * Logarithm of the density of a measured rate where the path should carry what lies in a range: flat within, log-normal
 * beyond its ends, and a little for what comes out anyhow. A sound path is not accused of giving more than it should.
 */
export function logLikelihood(
  { bps, spread }: Pick<Evidence, 'bps' | 'spread'>,
  range: SoundRange,
  sound: boolean,
): number {
  const sigma = Math.max(LEAST_SPREAD, spread ?? USUAL_SPREAD);
  const [low, high, rate] = [Math.log(range.lowBps), Math.log(range.highBps), Math.log(bps)];
  const beyond = rate < low ? low - rate : rate > high && !sound ? rate - high : 0;
  const width = high - low + sigma * Math.sqrt(2 * Math.PI);
  return Math.log(((1 - ODD) * Math.exp(-(beyond * beyond) / (2 * sigma * sigma))) / width + ODD_DENSITY);
}

interface Table {
  /** Of each suspect, by bin: what its evidence says more than if it were sound. */
  readonly gains: readonly (readonly number[])[];
  readonly bins: readonly (readonly SoundRange[])[];
}

function referencesOf(
  suspects: readonly Suspect[],
  evidence: readonly Evidence[],
  sounds: readonly (SoundRange | null)[],
) {
  const references = suspects.map(({ sound }) => sound?.highBps ?? 0);
  evidence.forEach(({ path, bps }, index) => {
    for (const place of path)
      if (suspects[place]!.sound === null)
        references[place] = Math.max(references[place]!, sounds[index]?.highBps ?? 0, bps);
  });
  return references;
}

/**
 * Exact inference over none, one or two segments that hold back, by enumerating them all. Each suspect is sound with one
 * less its prior, else holds back at one of twelve capacities alike; an occasion shows the least along its path.
 * Occasions whose path is not known to carry anything accuse nobody. `complaints`: paths on which somebody says that it is
 * slow; each speaks once for every explanation with something on its path.
 */
export function posteriorOf(
  suspects: readonly Suspect[],
  evidence: readonly Evidence[],
  complaints: readonly (readonly number[])[] = [],
): Posterior {
  const sounds = evidence.map(({ path }) => soundOfPath(path, suspects));
  const references = referencesOf(suspects, evidence, sounds);
  const bins = suspects.map(({ sound }, place) => (references[place]! > 0 ? binsOf(sound, references[place]!) : []));
  const measured = evidence.flatMap((each, index) => {
    const sound = sounds[index];
    return sound === null || sound === undefined ? [] : [{ ...each, sound }];
  });
  const telling = [...measured, ...complaints.map((path) => ({ path }))];
  const base = [...measured.map((each) => logLikelihood(each, each.sound, true)), ...complaints.map(() => 0)];
  // Of each occasion and each place of its path, by bin: the likelihood if that one holds back.
  const byBin = [
    ...measured.map((each) =>
      each.path.map((place) => bins[place]!.map((bin) => logLikelihood(each, lower(each.sound, bin), false))),
    ),
    ...complaints.map((path) => path.map((place) => bins[place]!.map(() => COMPLAINT_SAYS))),
  ];
  const gains = suspects.map((_, place) => bins[place]!.map(() => 0));
  telling.forEach(({ path }, index) => {
    path.forEach((place, position) => {
      const row = gains[place]!;
      byBin[index]![position]!.forEach((value, bin) => (row[bin] = row[bin]! + value - base[index]!));
    });
  });
  const table = { gains, bins };
  return normalised(suspects, [
    { suspects: [], logWeight: 0, capacitiesBps: [] },
    ...singles(suspects, table),
    ...pairs(suspects, table, telling, base, byBin),
  ]);
}

interface Weighed {
  readonly suspects: readonly number[];
  readonly logWeight: number;
  readonly capacitiesBps: readonly number[];
}

const odds = ({ prior, signs }: Suspect) => Math.log(prior / (1 - prior) / BINS) + signs;
const centre = ({ lowBps, highBps }: SoundRange) => (Math.log(lowBps) + Math.log(highBps)) / 2;

function logSum(values: readonly number[]): number {
  const most = values.reduce((max, value) => Math.max(max, value), -Infinity);
  if (most === -Infinity) return -Infinity;
  let sum = 0;
  for (const value of values) sum += Math.exp(value - most);
  return most + Math.log(sum);
}

function meanCapacity(bins: readonly SoundRange[], logWeights: readonly number[]): number {
  const all = logSum(logWeights);
  return Math.exp(bins.reduce((sum, bin, index) => sum + Math.exp(logWeights[index]! - all) * centre(bin), 0));
}

function singles(suspects: readonly Suspect[], { gains, bins }: Table): Weighed[] {
  return suspects.flatMap((suspect, place) => {
    const weights = gains[place]!.map((gain) => odds(suspect) + gain);
    if (weights.length === 0) return [];
    return [{ suspects: [place], logWeight: logSum(weights), capacitiesBps: [meanCapacity(bins[place]!, weights)] }];
  });
}

/** Which occasions have both of a pair on their path, with the positions of both. */
function sharing(telling: readonly Pick<Evidence, 'path'>[]): Map<number, [number, number, number][]> {
  const shared = new Map<number, [number, number, number][]>();
  telling.forEach(({ path }, index) => {
    for (let a = 0; a < path.length; a += 1)
      for (let b = 0; b < path.length; b += 1) {
        if (path[a]! >= path[b]!) continue;
        const key = path[a]! * 65_536 + path[b]!;
        const before = shared.get(key);
        if (before === undefined) shared.set(key, [[index, a, b]]);
        else before.push([index, a, b]);
      }
  });
  return shared;
}

function pairs(
  suspects: readonly Suspect[],
  { gains, bins }: Table,
  telling: readonly Pick<Evidence, 'path'>[],
  base: readonly number[],
  byBin: readonly (readonly (readonly number[])[])[],
): Weighed[] {
  const shared = sharing(telling);
  const alone = suspects.map((suspect, place) => gains[place]!.map((gain) => odds(suspect) + gain));
  const sums = alone.map(logSum);
  const means = alone.map((weights, place) => (weights.length === 0 ? 0 : meanCapacity(bins[place]!, weights)));
  const found: Weighed[] = [];
  for (let a = 0; a < suspects.length; a += 1)
    for (let b = a + 1; b < suspects.length; b += 1) {
      if (bins[a]!.length === 0 || bins[b]!.length === 0) continue;
      const both = shared.get(a * 65_536 + b);
      // Where no occasion has both on its path, each is judged by its own.
      if (both === undefined) {
        found.push({ suspects: [a, b], logWeight: sums[a]! + sums[b]!, capacitiesBps: [means[a]!, means[b]!] });
        continue;
      }
      // An occasion with both shows the lower of them, so the other one's gain is taken back.
      const takenBack = (place: number, at: 1 | 2) =>
        bins[place]!.map((_, bin) =>
          both.reduce((sum, shares) => sum + base[shares[0]]! - byBin[shares[0]]![shares[at]]![bin]!, 0),
        );
      const [backOfA, backOfB] = [takenBack(a, 1), takenBack(b, 2)];
      const weights: number[] = [];
      const [ofA, ofB]: number[][] = [new Array<number>(BINS).fill(-Infinity), new Array<number>(BINS).fill(-Infinity)];
      const perA: number[][] = Array.from({ length: BINS }, () => []);
      const perB: number[][] = Array.from({ length: BINS }, () => []);
      for (let i = 0; i < BINS; i += 1)
        for (let j = 0; j < BINS; j += 1) {
          const aIsLower = bins[a]![i]!.highBps <= bins[b]![j]!.highBps;
          const weight = alone[a]![i]! + alone[b]![j]! + (aIsLower ? backOfB[j]! : backOfA[i]!);
          weights.push(weight);
          perA[i]!.push(weight);
          perB[j]!.push(weight);
        }
      perA.forEach((each, i) => (ofA![i] = logSum(each)));
      perB.forEach((each, j) => (ofB![j] = logSum(each)));
      found.push({
        suspects: [a, b],
        logWeight: logSum(weights),
        capacitiesBps: [meanCapacity(bins[a]!, ofA!), meanCapacity(bins[b]!, ofB!)],
      });
    }
  return found;
}

const LEAST_PROBABILITY = 0.001;

function normalised(suspects: readonly Suspect[], weighed: readonly Weighed[]): Posterior {
  const all = logSum(weighed.map(({ logWeight }) => logWeight));
  const marginal = suspects.map(() => 0);
  const explanations: Explanation[] = [];
  for (const { suspects: places, logWeight, capacitiesBps } of weighed) {
    const probability = Math.exp(logWeight - all);
    for (const place of places) marginal[place] = marginal[place]! + probability;
    if (probability >= LEAST_PROBABILITY) explanations.push({ suspects: places, probability, capacitiesBps });
  }
  return { explanations: explanations.sort((one, other) => other.probability - one.probability), marginal };
}
