import type { SoundRange } from './segment';
import type { NamedExplanation } from './suspicion';

/** A test that could be made: the path that its run would take, and what it costs. */
export interface TestCandidate {
  readonly id: string;
  /** Ids of the segments. What a swap puts in their place is not among them: it is taken for sound. */
  readonly path: readonly string[];
  /** What the path carries while all of it is sound, bits per second. */
  readonly sound: SoundRange;
  readonly minutes: number;
}

/** What is thought after an outcome: the likeliest segments, and how likely each. */
export interface Outlook {
  readonly probability: number;
  readonly suspects: readonly { readonly id: string; readonly probability: number }[];
}

export interface WeighedTest<Candidate extends TestCandidate = TestCandidate> {
  readonly candidate: Candidate;
  /** Expected fall of the entropy of what holds back, bits. */
  readonly gainBits: number;
  readonly perMinute: number;
  readonly ifFast: Outlook;
  readonly ifSlow: Outlook;
}

/** A test that tells less than this cannot change the mind, and is never proposed. */
const LEAST_GAIN_BITS = 0.02;
/** Outcomes lie on a grid of the logarithm, so far below what is sound. */
const STEP = 0.2;
const LEVELS = 20;
/** An explanation knows its rate no better than this, on the logarithm: its capacity is a guess, and runs are noisy. */
const SIGMA = 0.22;
/** A share of outcomes comes out anyhow. */
const ANYTHING = 0.03;
/** Below this share of what is sound, an outcome is slow. */
const SLOW_BELOW = 0.85;

/** The rate that an explanation expects of a path. */
function expectedBps({ suspects, capacitiesBps }: NamedExplanation, { path, sound }: TestCandidate): number {
  return suspects.reduce(
    (least, id, index) => (path.includes(id) ? Math.min(least, capacitiesBps[index]!) : least),
    sound.highBps,
  );
}

/** How likely each outcome is where a rate is expected: sums to 1. */
function outcomesOf(bps: number, sound: SoundRange): number[] {
  const below = Math.max(0, Math.log(sound.highBps / bps));
  const raw = Array.from({ length: LEVELS }, (_, level) =>
    Math.exp(-((level * STEP - below) ** 2) / (2 * SIGMA * SIGMA)),
  );
  const total = raw.reduce((sum, value) => sum + value, 0);
  return raw.map((value) => (total === 0 ? 0 : ((1 - ANYTHING) * value) / total) + ANYTHING / LEVELS);
}

function entropyBits(weights: Iterable<number>): number {
  let total = 0;
  for (const weight of weights) total += weight;
  if (total <= 0) return 0;
  let bits = 0;
  for (const weight of weights) if (weight > 0) bits -= (weight / total) * Math.log2(weight / total);
  return bits;
}

/**
 * What a hunt asks: which of these segments it is. By id: the name of its group, for segments that no test tells apart
 * are one answer. What is not among them is not asked about.
 */
export type HuntQuestion = ReadonlyMap<string, string>;

/** What an explanation answers, whatever the capacities: the groups that hold back. */
function answerOf({ suspects }: NamedExplanation, question: HuntQuestion): string {
  return [...new Set(suspects.flatMap((id) => question.get(id) ?? []))].sort().join(' ');
}

/** The question about some segments, as far as the tests that can be made tell them apart. */
export function questionOf(ids: readonly string[], candidates: readonly Pick<TestCandidate, 'path'>[]): HuntQuestion {
  const paths = candidates.map(({ path }) => new Set(path));
  return new Map(ids.map((id) => [id, paths.map((path) => (path.has(id) ? '1' : '0')).join('')]));
}

function outlookOf(explanations: readonly NamedExplanation[], weights: readonly number[]): Outlook {
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const bySuspect = new Map<string, number>();
  explanations.forEach(({ suspects }, index) => {
    for (const id of suspects) bySuspect.set(id, (bySuspect.get(id) ?? 0) + weights[index]!);
  });
  return {
    probability: total,
    suspects: [...bySuspect]
      .map(([id, weight]) => ({ id, probability: total === 0 ? 0 : weight / total }))
      .sort((a, b) => b.probability - a.probability)
      .slice(0, 3),
  };
}

/** How sure one is by now: bits that are still open. */
export function openBits(explanations: readonly NamedExplanation[], question: HuntQuestion): number {
  const byAnswer = new Map<string, number>();
  for (const each of explanations) {
    const answer = answerOf(each, question);
    byAnswer.set(answer, (byAnswer.get(answer) ?? 0) + each.probability);
  }
  return entropyBits([...byAnswer.values()]);
}

/** What a candidate would tell, by the model that the suspicion itself comes from. */
export function weighTest<Candidate extends TestCandidate>(
  explanations: readonly NamedExplanation[],
  candidate: Candidate,
  question: HuntQuestion,
): WeighedTest<Candidate> {
  const answers = explanations.map((each) => answerOf(each, question));
  const expected = explanations.map((each) => expectedBps(each, candidate));
  const outcomes = expected.map((bps) => outcomesOf(bps, candidate.sound));
  let after = 0;
  for (let outcome = 0; outcome < LEVELS; outcome += 1) {
    const byAnswer = new Map<string, number>();
    let chance = 0;
    explanations.forEach((each, index) => {
      const weight = each.probability * outcomes[index]![outcome]!;
      chance += weight;
      byAnswer.set(answers[index]!, (byAnswer.get(answers[index]!) ?? 0) + weight);
    });
    after += chance * entropyBits([...byAnswer.values()]);
  }
  const total = explanations.reduce((sum, { probability }) => sum + probability, 0);
  const gainBits = Math.max(0, openBits(explanations, question) - after / (total || 1));
  const slow = expected.map((bps) => bps < SLOW_BELOW * candidate.sound.highBps);
  const weightsIf = (wanted: boolean) =>
    explanations.map(({ probability }, i) => (slow[i] === wanted ? probability : 0));
  return {
    ...{ candidate, gainBits, perMinute: gainBits / candidate.minutes },
    ifFast: outlookOf(explanations, weightsIf(false)),
    ifSlow: outlookOf(explanations, weightsIf(true)),
  };
}

/** The tests that tell most for their minutes, at most so many; those that cannot change the mind are left out. */
export function nextTests<Candidate extends TestCandidate>(
  explanations: readonly NamedExplanation[],
  candidates: readonly Candidate[],
  question: HuntQuestion,
  most = 3,
): WeighedTest<Candidate>[] {
  return candidates
    .map((candidate) => weighTest(explanations, candidate, question))
    .filter(({ gainBits }) => gainBits >= LEAST_GAIN_BITS)
    .sort((a, b) => b.perMinute - a.perMinute || b.gainBits - a.gainBits)
    .slice(0, most);
}
