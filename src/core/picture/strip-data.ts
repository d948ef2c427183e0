import { echoedBetween } from '../measure/delay/probe-series';
import { rateBins, type RateBins } from '../measure/rate/rate-bins';
import type { CounterSeries } from '../measure/rate/counter-series';
import { countedFromMs } from '../measure/rate/steady-part';
import { median } from '../stats/percentile';
import type { PhaseSpan } from '../run/phase';
import { RUN_PROFILES } from '../run/run-profiles';
import { onRunClock, phaseSpan, type RunSamples } from '../run/run-samples';

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
/** At most this many bins a direction: a soak of minutes is drawn coarser. */
const MOST_BINS = 400;

/** Rates of series that come after each other, in windows of `binMs`; null: there are none. */
export function binsOf(seriesList: readonly (CounterSeries | null)[], binMs: number): RateBins | null {
  const known = seriesList.filter((series) => series !== null).map((series) => rateBins(series, binMs, 0));
  if (known.length === 0) return null;
  return { binMs, atMs: known.flatMap((bins) => bins.atMs), bps: known.flatMap((bins) => bins.bps) };
}

/** The picture of a run so far or of a whole one: the same function draws it live and from the record. */
export function stripDataOf(samples: RunSamples, nowMs?: number): StripData {
  const durationMs = Math.max(samples.phases.at(-1)?.toMs ?? 0, nowMs ?? 0);
  const binMs = STRIP_BIN_MS * Math.max(1, Math.ceil(durationMs / STRIP_BIN_MS / MOST_BINS));
  const idle = phaseSpan(samples, 'idle');
  const idleMedianMs = idle === null ? null : median(echoedBetween(samples.probes, idle.fromMs, idle.toMs));
  const { peerClockOffsetMs } = samples;
  const upload = onRunClock(samples.upload, peerClockOffsetMs);
  const startedMs = {
    download: samples.download?.atMs[0],
    upload: upload?.atMs[0],
    both: samples.bothDown?.atMs[0],
  };
  const { steady } = RUN_PROFILES[samples.profile];
  const discarded = samples.phases.flatMap(({ phase, fromMs, toMs }) => {
    if (phase === 'settle') return [{ fromMs, toMs }];
    const started = phase === 'idle' || phase === 'paced' ? undefined : startedMs[phase];
    if (started === undefined) return [];
    const changesMs = samples.streams.filter((change) => change.phase === phase).map(({ atMs }) => atMs);
    return [{ fromMs, toMs: Math.min(countedFromMs(started, changesMs.slice(1), idleMedianMs, steady), toMs) }];
  });
  const echoed = samples.probes.rttMs.flatMap((rtt, index) =>
    rtt === null ? [] : [{ atMs: samples.probes.sentMs[index]!, rtt }],
  );
  return {
    durationMs,
    phases: samples.phases,
    down: binsOf([samples.download, samples.bothDown], binMs),
    up: binsOf([upload, onRunClock(samples.bothUp, peerClockOffsetMs)], binMs),
    probes: { atMs: echoed.map(({ atMs }) => atMs), rttMs: echoed.map(({ rtt }) => rtt) },
    idleMedianMs,
    discarded,
  };
}
