import { median } from '../stats/percentile';
import { echoedBetween } from '../delay/probe-series';
import { rateBins, type RateBins } from '../rate/rate-bins';
import { rampMs } from '../rate/steady-part';
import { phaseSpan, uploadOnRunClock, type PhaseSpan, type RunSamples } from './run-samples';

/** All that the strip draws, on the run's clock in ms; rates in bits per second, delays in ms. */
export interface StripData {
  readonly durationMs: number;
  readonly phases: readonly PhaseSpan[];
  readonly down: RateBins | null;
  readonly up: RateBins | null;
  readonly probes: { readonly atMs: readonly number[]; readonly rttMs: readonly number[] };
  readonly idleMedianMs: number | null;
  /** Parts that are kept but not counted: ramps and settling. */
  readonly discarded: readonly { readonly fromMs: number; readonly toMs: number }[];
}

const STRIP_BIN_MS = 100;

/** The picture of a run so far or of a whole one: the same function draws it live and from the record. */
export function stripDataOf(samples: RunSamples, nowMs?: number): StripData {
  const lastPhaseEnd = samples.phases.at(-1)?.toMs ?? 0;
  const idle = phaseSpan(samples, 'idle');
  const idleMedianMs = idle === null ? null : median(echoedBetween(samples.probes, idle.fromMs, idle.toMs));
  const upload = uploadOnRunClock(samples);
  const ramp = rampMs(idleMedianMs);
  const discarded = samples.phases.flatMap(({ phase, fromMs, toMs }) => {
    if (phase === 'settle') return [{ fromMs, toMs }];
    const series = phase === 'download' ? samples.download : phase === 'upload' ? upload : null;
    const startedMs = series?.atMs[0];
    return startedMs === undefined ? [] : [{ fromMs, toMs: Math.min(startedMs + ramp, toMs) }];
  });
  const echoed = samples.probes.rttMs.flatMap((rtt, index) =>
    rtt === null ? [] : [{ atMs: samples.probes.sentMs[index]!, rtt }],
  );
  return {
    durationMs: Math.max(lastPhaseEnd, nowMs ?? 0),
    phases: samples.phases,
    down: samples.download === null ? null : rateBins(samples.download, STRIP_BIN_MS, 0),
    up: upload === null ? null : rateBins(upload, STRIP_BIN_MS, 0),
    probes: { atMs: echoed.map(({ atMs }) => atMs), rttMs: echoed.map(({ rtt }) => rtt) },
    idleMedianMs,
    discarded,
  };
}
