import type { RateEstimate } from '../measure/rate/rate-estimate';

export const VERDICT_WORDS = ['full', 'capped', 'thin', 'starved', 'no verdict'] as const;
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
  | 'not-measured'
  | 'no-yardstick'
  | 'range'
  | 'same-machine'
  | 'not-credible'
  | 'shared-on-purpose'
  | 'single-stream';

const THIN_FROM = 0.5;
/** No figure is surer than this, however narrow its own interval: a hair's breadth does not decide. */
const LEAST_EDGE = 0.01;
const WORST_FIRST: readonly JudgedWord[] = ['starved', 'thin', 'capped', 'full'];

/** What a rate is held against: the yardstick, and the plan where the run crosses the provider's line. Bits per second. */
export interface Held {
  /** Null where there is none. */
  readonly yardstickBps: number | null;
  readonly planBps: number | null;
  readonly fullFrom: number;
}

function wordOf(bps: number, yardstickBps: number, { planBps, fullFrom }: Held): JudgedWord {
  const share = bps / yardstickBps;
  if (share < fullFrom) return share >= THIN_FROM ? 'thin' : 'starved';
  // As much as its own link can carry, and less than is paid for.
  return planBps !== null && yardstickBps < planBps && bps < fullFrom * planBps ? 'capped' : 'full';
}

/**
 * Full from `fullFrom` of the yardstick, thin from a half, starved below; capped where the device's own link is the
 * yardstick, is used up, and lets less through than the plan promises. When the 95 % interval of the rate, or
 * 1 % either way, straddles a limit, `edgeOf` names the other word. No figure, no yardstick or `voidedBy`: no verdict.
 */
export function verdictOf(estimate: JudgedRate | null, held: Held, voidedBy: NoVerdict | null): Verdict {
  const { yardstickBps } = held;
  if (estimate === null) return { word: 'no verdict', why: 'not-measured' };
  if (voidedBy !== null) return { word: 'no verdict', why: voidedBy };
  if (yardstickBps === null) return { word: 'no verdict', why: 'no-yardstick' };
  const word = wordOf(estimate.steadyBps, yardstickBps, held);
  const { steadyBps, intervalBps } = estimate;
  const low = Math.min(intervalBps?.low ?? steadyBps, steadyBps * (1 - LEAST_EDGE));
  const high = Math.max(intervalBps?.high ?? steadyBps, steadyBps * (1 + LEAST_EDGE));
  const words = [low, high].map((bps) => wordOf(bps, yardstickBps, held));
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
