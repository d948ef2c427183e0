import type { ProbeSeries } from '../delay/probe-series';
import type { CounterSeries } from '../rate/counter-series';

export const PHASES = ['idle', 'download', 'settle', 'upload'] as const;
export type Phase = (typeof PHASES)[number];

/** When a phase began and ended, ms on the run's clock. */
export interface PhaseSpan {
  readonly phase: Phase;
  readonly fromMs: number;
  readonly toMs: number;
}

/**
 * All that a client hands in: counters and probe times, never figures. The run's clock is the client's monotonic clock,
 * 0 when the run began. The upload counters are the peer's, on the peer's monotonic clock.
 */
export interface RunSamples {
  readonly formatVersion: 1;
  readonly phases: readonly PhaseSpan[];
  readonly probes: ProbeSeries;
  readonly download: CounterSeries | null;
  readonly upload: CounterSeries | null;
  /** Add to a time on the peer's clock to get the run's clock, ms; null when no echo told it. */
  readonly peerClockOffsetMs: number | null;
}

export const NO_SAMPLES: RunSamples = {
  formatVersion: 1,
  phases: [],
  probes: { sentMs: [], rttMs: [] },
  download: null,
  upload: null,
  peerClockOffsetMs: null,
};

/** The span of a phase, or null when the run never came to it. */
export function phaseSpan(samples: RunSamples, phase: Phase): PhaseSpan | null {
  return samples.phases.find((span) => span.phase === phase) ?? null;
}

/** The upload counters moved onto the run's clock; null when they, or the offset, are missing. */
export function uploadOnRunClock(samples: RunSamples): CounterSeries | null {
  const { upload, peerClockOffsetMs } = samples;
  if (upload === null || peerClockOffsetMs === null) return null;
  return { atMs: upload.atMs.map((atMs) => atMs + peerClockOffsetMs), bytes: upload.bytes };
}
