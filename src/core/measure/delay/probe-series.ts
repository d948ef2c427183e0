/**
 * Round trips of the probes. Shapes: `sentMs` [N], send time on the run's clock in ms; `rttMs` [N], the round trip in
 * ms by the client's monotonic clock, or null when no echo came back before the run ended.
 */
export interface ProbeSeries {
  readonly sentMs: readonly number[];
  readonly rttMs: readonly (number | null)[];
}

/** Round trips of the echoed probes sent within [fromMs, toMs). */
export function echoedBetween(probes: ProbeSeries, fromMs: number, toMs: number): number[] {
  return probes.rttMs.filter(
    (rtt, index): rtt is number => rtt !== null && probes.sentMs[index]! >= fromMs && probes.sentMs[index]! < toMs,
  );
}
