/** The E-model's default rating without impairments of delay and loss (ITU-T G.107, default values). */
const DEFAULT_RATING = 93.2;
const CODEC_MS = 20;
/** G.113 for G.711 with packet-loss concealment: impairment 0, loss robustness 25.1 %. */
const CODEC_IMPAIRMENT = 0;
const LOSS_ROBUSTNESS_PERCENT = 25.1;

export interface VoicePath {
  readonly oneWayMs: number;
  /** Mean round-trip jitter; a play-out buffer of twice that is assumed. */
  readonly jitterMs: number;
  readonly lossRatio: number;
}

/**
 * Delay impairment Idd of G.107 §7.4 (sT = 1, mT = 100 ms): 0 up to 100 ms of one-way delay,
 * then 25 × ((1 + X⁶)^(1/6) − 3 (1 + (X/3)⁶)^(1/6) + 2) with X = log₂(Ta / 100).
 */
export function delayImpairment(oneWayMs: number): number {
  if (oneWayMs <= 100) return 0;
  const x = Math.log2(oneWayMs / 100);
  return 25 * ((1 + x ** 6) ** (1 / 6) - 3 * (1 + (x / 3) ** 6) ** (1 / 6) + 2);
}

/**
 * R-factor by the E-model (ITU-T G.107): R = 93.2 − Idd(Ta) − Ie,eff, with Ta = one way + 2 × jitter + 20 ms and
 * Ie,eff = Ie + (95 − Ie) × Ppl / (Ppl + Bpl). Example: 10 ms, 1 ms jitter, no loss → 93.2.
 */
export function transmissionRating({ oneWayMs, jitterMs, lossRatio }: VoicePath): number {
  const mouthToEarMs = oneWayMs + 2 * jitterMs + CODEC_MS;
  const lossPercent = lossRatio * 100;
  const lossImpairment =
    CODEC_IMPAIRMENT + ((95 - CODEC_IMPAIRMENT) * lossPercent) / (lossPercent + LOSS_ROBUSTNESS_PERCENT);
  return Math.max(0, DEFAULT_RATING - delayImpairment(mouthToEarMs) - lossImpairment);
}

/** Mean opinion score of a rating (G.107 Annex B): 1 + 0.035 R + R (R − 60)(100 − R) × 7e−6, between 1 and 4.5. */
export function meanOpinionScore(rating: number): number {
  if (rating <= 0) return 1;
  if (rating >= 100) return 4.5;
  return 1 + 0.035 * rating + rating * (rating - 60) * (100 - rating) * 7e-6;
}
