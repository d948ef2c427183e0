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
  /** 0: it limits what a path carries, and is accused of nothing. */
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
  { lowBps, highBps }: SoundRange,
  sound: boolean,
): number {
  return densityAt(Math.log(bps), spread, Math.log(lowBps), Math.log(highBps), sound);
}

/** The same, of rates whose logarithms are known. */
function densityAt(rate: number, spread: number | null, low: number, high: number, sound: boolean): number {
  const sigma = Math.max(LEAST_SPREAD, spread ?? USUAL_SPREAD);
  const beyond = rate < low ? low - rate : rate > high && !sound ? rate - high : 0;
  const width = high - low + sigma * Math.sqrt(2 * Math.PI);
  return Math.log(((1 - ODD) * Math.exp(-(beyond * beyond) / (2 * sigma * sigma))) / width + ODD_DENSITY);
}

/** Of each suspect; empty where it is accused of nothing. */
interface Table {
  readonly bins: readonly LogBins[];
  /** By bin: logarithm of its weight if it alone holds back at that capacity. */
  readonly alone: readonly Float64Array[];
  /** Logarithm of the sum of these. */
  readonly sums: readonly number[];
}

/** Logarithms of the lower and the upper end of each bin. */
interface LogBins {
  readonly low: Float64Array;
  readonly high: Float64Array;
}

const logBins = (bins: readonly SoundRange[]): LogBins => ({
  low: Float64Array.from(bins, ({ lowBps }) => Math.log(lowBps)),
  high: Float64Array.from(bins, ({ highBps }) => Math.log(highBps)),
});

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
  const bins = suspects.map(({ sound, prior }, place) =>
    logBins(prior > 0 && references[place]! > 0 ? binsOf(sound, references[place]!) : []),
  );
  const telling: Telling[] = [];
  evidence.forEach((each, index) => {
    const sound = sounds[index] ?? null;
    if (sound !== null) telling.push({ path: each.path, gains: gainsOf(each, sound, bins) });
  });
  for (const path of complaints)
    telling.push({ path, gains: path.map((place) => bins[place]!.low.map(() => COMPLAINT_SAYS)) });
  const gains = bins.map(({ low }) => new Float64Array(low.length));
  for (const { path, gains: own } of telling)
    path.forEach((place, position) => {
      const row = gains[place]!;
      const more = own[position]!;
      for (let bin = 0; bin < row.length; bin += 1) row[bin]! += more[bin]!;
    });
  const alone = suspects.map((suspect, place) => gains[place]!.map((gain) => odds(suspect) + gain));
  const table = { bins, alone, sums: alone.map(logSum) };
  return normalised(suspects.length, [
    { suspects: [], logWeight: 0, capacitiesBps: () => [] },
    ...singles(table),
    ...pairs(table, telling),
  ]);
}

/** What one occasion or complaint says, of each place of its path and by bin, more than if that place were sound. */
interface Telling {
  readonly path: readonly number[];
  readonly gains: readonly Float64Array[];
}

function gainsOf({ path, bps, spread }: Evidence, sound: SoundRange, bins: readonly LogBins[]): Float64Array[] {
  const [rate, low, high] = [Math.log(bps), Math.log(sound.lowBps), Math.log(sound.highBps)];
  const base = densityAt(rate, spread, low, high, true);
  return path.map((place) => {
    const of = bins[place]!;
    const gains = new Float64Array(of.low.length);
    for (let bin = 0; bin < gains.length; bin += 1)
      gains[bin] = densityAt(rate, spread, Math.min(low, of.low[bin]!), Math.min(high, of.high[bin]!), false) - base;
    return gains;
  });
}

interface Weighed {
  readonly suspects: readonly number[];
  readonly logWeight: number;
  /** Worked out only for those that are kept. */
  readonly capacitiesBps: () => readonly number[];
}

const odds = ({ prior, signs }: Suspect) => Math.log(prior / (1 - prior) / BINS) + signs;

function logSum(values: ArrayLike<number>): number {
  let most = -Infinity;
  for (let place = 0; place < values.length; place += 1) most = Math.max(most, values[place]!);
  if (most === -Infinity) return -Infinity;
  let sum = 0;
  for (let place = 0; place < values.length; place += 1) {
    const below = values[place]! - most;
    // What is less than a thousand millionth of a millionth adds nothing.
    if (below > -35) sum += Math.exp(below);
  }
  return most + Math.log(sum);
}

/** The mean over the bins on the logarithm, weighed. */
function meanCapacity({ low, high }: LogBins, logWeights: Float64Array): number {
  const all = logSum(logWeights);
  return Math.exp(
    logWeights.reduce((sum, weight, bin) => sum + (Math.exp(weight - all) * (low[bin]! + high[bin]!)) / 2, 0),
  );
}

function singles({ bins, alone, sums }: Table): Weighed[] {
  return sums.flatMap((logWeight, place) =>
    logWeight === -Infinity
      ? []
      : [{ suspects: [place], logWeight, capacitiesBps: () => [meanCapacity(bins[place]!, alone[place]!)] }],
  );
}

const pairKey = (a: number, b: number) => a * 65_536 + b;

/**
 * Of each pair that some occasion has on its path: the gains of those occasions, summed by bin, first of the lower place
 * and then of the higher one. All in one array; `at` tells where a pair begins.
 */
function sharedGains(telling: readonly Telling[], { sums: known }: Table) {
  const at = new Map<number, number>();
  const accused = telling.map(({ path }) =>
    path.flatMap((place, position) => (known[place] === -Infinity ? [] : [{ place, position }])),
  );
  const eachPair = (act: (index: number, a: number, b: number, key: number) => void) =>
    accused.forEach((places, index) => {
      for (const a of places)
        for (const b of places) if (a.place < b.place) act(index, a.position, b.position, pairKey(a.place, b.place));
    });
  eachPair((_, __, ___, key) => at.has(key) || at.set(key, at.size * 2 * BINS));
  const gains = new Float64Array(at.size * 2 * BINS);
  eachPair((index, a, b, key) => {
    const start = at.get(key)!;
    const [ofA, ofB] = [telling[index]!.gains[a]!, telling[index]!.gains[b]!];
    for (let bin = 0; bin < BINS; bin += 1) {
      gains[start + bin]! += ofA[bin]!;
      gains[start + BINS + bin]! += ofB[bin]!;
    }
  });
  return { at, gains };
}

/**
 * Of a pair, by bin of the one and of the other, into `weights`: an occasion with both on its path shows the lower of
 * them, so the other one's gain is taken back. `start`: where the pair's shared gains begin.
 */
function weighPair(
  { bins, alone }: Table,
  [a, b]: readonly [number, number],
  shared: Float64Array,
  start: number,
  weights: Float64Array,
): void {
  const [highA, highB, aloneA, aloneB] = [bins[a]!.high, bins[b]!.high, alone[a]!, alone[b]!];
  for (let i = 0; i < BINS; i += 1)
    for (let j = 0; j < BINS; j += 1) {
      const back = highA[i]! <= highB[j]! ? shared[start + BINS + j]! : shared[start + i]!;
      weights[i * BINS + j] = aloneA[i]! + aloneB[j]! - back;
    }
}

function pairs(table: Table, telling: readonly Telling[]): Weighed[] {
  const { bins, alone, sums } = table;
  const shared = sharedGains(telling, table);
  const weights = new Float64Array(BINS * BINS);
  const found: Weighed[] = [];
  const places = sums.flatMap((sum, place) => (sum === -Infinity ? [] : [place]));
  places.forEach((a, index) => {
    for (const b of places.slice(index + 1)) {
      const start = shared.at.get(pairKey(a, b));
      if (start === undefined) {
        // Where no occasion has both on its path, each is judged by its own.
        const capacitiesBps = () => [meanCapacity(bins[a]!, alone[a]!), meanCapacity(bins[b]!, alone[b]!)];
        found.push({ suspects: [a, b], logWeight: sums[a]! + sums[b]!, capacitiesBps });
        continue;
      }
      weighPair(table, [a, b], shared.gains, start, weights);
      const capacitiesBps = () => {
        weighPair(table, [a, b], shared.gains, start, weights);
        const overOther = (at: (own: number, other: number) => number) =>
          Float64Array.from({ length: BINS }, (_, own) =>
            logSum(Array.from({ length: BINS }, (__, other) => weights[at(own, other)]!)),
          );
        return [
          meanCapacity(
            bins[a]!,
            overOther((own, other) => own * BINS + other),
          ),
          meanCapacity(
            bins[b]!,
            overOther((own, other) => other * BINS + own),
          ),
        ];
      };
      found.push({ suspects: [a, b], logWeight: logSum(weights), capacitiesBps });
    }
  });
  return found;
}

const LEAST_PROBABILITY = 0.001;

function normalised(suspects: number, weighed: readonly Weighed[]): Posterior {
  const all = logSum(weighed.map(({ logWeight }) => logWeight));
  const marginal = new Array<number>(suspects).fill(0);
  const explanations: Explanation[] = [];
  for (const { suspects: places, logWeight, capacitiesBps } of weighed) {
    const probability = Math.exp(logWeight - all);
    for (const place of places) marginal[place] = marginal[place]! + probability;
    if (probability >= LEAST_PROBABILITY)
      explanations.push({ suspects: places, probability, capacitiesBps: capacitiesBps() });
  }
  return { explanations: explanations.sort((one, other) => other.probability - one.probability), marginal };
}
