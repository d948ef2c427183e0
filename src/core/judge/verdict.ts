import type { RateEstimate } from '../measure/rate/rate-estimate';

export const VERDICT_WORDS = ['full', 'thin', 'starved', 'no verdict'] as const;
export type VerdictWord = (typeof VERDICT_WORDS)[number];
export type JudgedWord = Exclude<VerdictWord, 'no verdict'>;

/** What of a rate is judged: the figure, and how sure it is. */
export type JudgedRate = Pick<RateEstimate, 'steadyBps' | 'intervalBps'>;

/** One direction held against its yardstick. `share` is measured / yardstick. */
export type Verdict =
  | { readonly word: JudgedWord; readonly share: number; readonly edgeOf: JudgedWord | null }
  | { readonly word: 'no verdict'; readonly why: NoVerdict };

/** Why there is none. `range`: what was measured is not one figure. */
export type NoVerdict =
  'not-measured' | 'no-yardstick' | 'range' | 'same-machine' | 'not-credible' | 'shared-on-purpose';

const THIN_FROM = 0.5;
/** No figure is surer than this, however narrow its own interval: a hair's breadth does not decide. */
const LEAST_EDGE = 0.01;
const WORST_FIRST: readonly JudgedWord[] = ['starved', 'thin', 'full'];

function wordOf(share: number, fullFrom: number): JudgedWord {
  if (share >= fullFrom) return 'full';
  return share >= THIN_FROM ? 'thin' : 'starved';
}

/**
 * Full from `fullFrom` of the yardstick, thin from a half, starved below. When the 95 % interval of the rate, or
 * 1 % either way, straddles a limit, `edgeOf` names the other word. No figure, no yardstick or `voidedBy`: no verdict.
 */
export function verdictOf(
  estimate: JudgedRate | null,
  /** Bits per second; null where there is none. */
  yardstickBps: number | null,
  fullFrom: number,
  voidedBy: NoVerdict | null,
): Verdict {
  if (estimate === null) return { word: 'no verdict', why: 'not-measured' };
  if (voidedBy !== null) return { word: 'no verdict', why: voidedBy };
  if (yardstickBps === null) return { word: 'no verdict', why: 'no-yardstick' };
  const word = wordOf(estimate.steadyBps / yardstickBps, fullFrom);
  const { steadyBps, intervalBps } = estimate;
  const low = Math.min(intervalBps?.low ?? steadyBps, steadyBps * (1 - LEAST_EDGE));
  const high = Math.max(intervalBps?.high ?? steadyBps, steadyBps * (1 + LEAST_EDGE));
  const words = [low, high].map((bps) => wordOf(bps / yardstickBps, fullFrom));
  return {
    word,
    share: estimate.steadyBps / yardstickBps,
    edgeOf: words.find((other) => other !== word) ?? null,
  };
}

/** The worse word of several; no verdict only when none could be judged. */
export function worstVerdict(verdicts: readonly Verdict[]): VerdictWord {
  return WORST_FIRST.find((word) => verdicts.some((verdict) => verdict.word === word)) ?? 'no verdict';
}
