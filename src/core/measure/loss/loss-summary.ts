import { interarrivalJitterMs, summarizeDelay, type DelaySummary } from '../delay/delay-summary';
import type { UdpSeries } from './udp-series';

/** What numbered packets say of loss. Ratios 0 to 1; null: not measured. */
export interface LossSummary {
  readonly kind: UdpSeries['kind'];
  readonly sent: number;
  /** Round trip: packets without a reply / packets sent. */
  readonly lossRatio: number;
  /** Client → peer: packets that the peer did not get. */
  readonly lossUpRatio: number | null;
  /** Peer → client: replies that did not come back. */
  readonly lossDownRatio: number | null;
  /** Packets that arrived after a later one (RFC 4737 type-P-reordered), client → peer and peer → client. */
  readonly reorderedUp: number;
  readonly reorderedDown: number;
  /** Replies beyond the first to the same packet; they make up for no loss. */
  readonly duplicates: number;
  readonly delay: DelaySummary | null;
  /** Smoothed interarrival jitter of each direction (RFC 3550 §6.4.1), ms; null where packets are not stamped. */
  readonly jitterUpMs: number | null;
  readonly jitterDownMs: number | null;
}

function reordered(sequence: readonly number[]): number {
  let highest = -Infinity;
  let late = 0;
  for (const value of sequence) {
    if (value < highest) late += 1;
    else highest = value;
  }
  return late;
}

/**
 * Loss, reordering and duplicates of the packets sent in [fromMs, toMs) of the run's clock. Null when none were sent.
 * The direction of a loss is known only for the whole run, since the peer counts from its start to its end.
 * Distinct packets are counted at both ends, duplicates apart.
 * Example: 100 sent, the peer got 98, 97 replies: round trip 3 %, up 2 %, down 1/98.
 */
export function summarizeLoss(series: UdpSeries | null, fromMs = -Infinity, toMs = Infinity): LossSummary | null {
  if (series === null) return null;
  const inside = series.sentMs.flatMap((sentMs, index) => (sentMs >= fromMs && sentMs < toMs ? [index] : []));
  if (inside.length === 0) return null;
  const answered = inside.filter((index) => series.rttMs[index] !== null);
  const whole = inside.length === series.sentMs.length;
  const got = whole ? series.peerReceived : null;
  const reflected = answered.map((index) => series.reflected[index]).filter((value) => value !== null);
  const stamped = answered.filter((index) => series.upMs[index] !== null);
  const arrivals = [...answered].sort(
    (a, b) => series.sentMs[a]! + series.rttMs[a]! - (series.sentMs[b]! + series.rttMs[b]!),
  );
  return {
    kind: series.kind,
    sent: inside.length,
    lossRatio: (inside.length - answered.length) / inside.length,
    lossUpRatio: got === null ? null : Math.max(0, inside.length - got) / inside.length,
    lossDownRatio: got === null || got === 0 ? null : Math.max(0, got - answered.length) / got,
    reorderedUp: reordered(reflected as number[]),
    reorderedDown: reordered(arrivals.map((index) => series.reflected[index] ?? index)),
    duplicates: series.duplicates,
    delay: summarizeDelay(answered.map((index) => series.rttMs[index]!)),
    jitterUpMs: interarrivalJitterMs(stamped.map((index) => series.upMs[index]!)),
    jitterDownMs: interarrivalJitterMs(stamped.map((index) => series.rttMs[index]! - series.upMs[index]!)),
  };
}

/**
 * Loss of one direction, as the E-model takes it: the worse of both where they are told apart, else what each would be if
 * both lost alike, 1 − √(1 − there and back). Example: 2 % there and back, not told apart → 1.005 %.
 */
export function oneWayLoss({ lossRatio, lossUpRatio, lossDownRatio }: LossSummary): number {
  if (lossUpRatio !== null && lossDownRatio !== null) return Math.max(lossUpRatio, lossDownRatio);
  return 1 - Math.sqrt(1 - lossRatio);
}
