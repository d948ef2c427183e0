import type { ProbeSeries } from '../measure/delay/probe-series';
import type { KernelSighting, PeerLoadSample } from '../domain/sightings';
import type { UdpSeries } from '../measure/loss/udp-series';
import type { CounterSeries } from '../measure/rate/counter-series';
import type { ClientTrouble } from './client-trouble';
import type { Phase, PhaseSpan } from './phase';
import type { ProfileName } from './run-profiles';

/** From `atMs` on (run's clock), so many streams were pulling in each direction of the phase. */
export interface StreamChange {
  readonly phase: Phase;
  readonly atMs: number;
  readonly streams: number;
}

/** The client's own timer was late by `lateMs` at `atMs` (run's clock): the device, or the page, was busy. */
export interface Stall {
  readonly atMs: number;
  readonly lateMs: number;
}

/** What the client saw of itself. */
export interface ClientSightings {
  /** Wall clock (UTC epoch ms) when the run's clock was 0, and what it said `spanMs` later by the monotonic clock. */
  readonly wallMs: number;
  readonly wallSpanMs: number;
  readonly spanMs: number;
  readonly stalls: readonly Stall[];
  /** What this client can take in from itself, without a network, bits per second; null when not measured. */
  readonly selfReadBps: number | null;
  /** Bytes on all interfaces of the client's machine less what the run moved, from the first load to the end. */
  readonly otherTraffic: { readonly downBytes: number; readonly upBytes: number; readonly overMs: number } | null;
  /** What tells that the device saves power, in words; null when nothing does. */
  readonly powerSaving: string | null;
  /** Smallest step that the client's clock was seen to make, ms; absent in records of before. */
  readonly clockStepMs?: number | null | undefined;
  /** How a download was read: into one reused buffer, buffer by buffer, or from a socket; absent where none was. */
  readonly reader?: DownloadReader | undefined;
  /** What it tried and could not do; absent in records of before. */
  readonly troubles?: readonly ClientTrouble[] | undefined;
}

export const DOWNLOAD_READERS = ['byob', 'plain', 'socket'] as const;
export type DownloadReader = (typeof DOWNLOAD_READERS)[number];

/**
 * All that a client hands in: counters, probe times and sightings, never figures. The run's clock is the client's
 * monotonic clock, 0 when the run began. Upload counters are the peer's, on the peer's monotonic clock.
 */
export interface RunSamples {
  readonly formatVersion: 1;
  readonly profile: ProfileName;
  readonly phases: readonly PhaseSpan[];
  readonly streams: readonly StreamChange[];
  readonly probes: ProbeSeries;
  readonly download: CounterSeries | null;
  readonly upload: CounterSeries | null;
  /** Both directions at once; on the same clocks as the single ones. */
  readonly bothDown: CounterSeries | null;
  readonly bothUp: CounterSeries | null;
  readonly udp: UdpSeries | null;
  /** Add to a time on the peer's clock to get the run's clock, ms; null when no echo told it. */
  readonly peerClockOffsetMs: number | null;
  readonly client: ClientSightings | null;
  readonly kernel: readonly KernelSighting[];
  readonly peerLoad: readonly PeerLoadSample[];
}

export const NO_SAMPLES: RunSamples = {
  formatVersion: 1,
  profile: 'standard',
  phases: [],
  streams: [],
  probes: { sentMs: [], rttMs: [] },
  download: null,
  upload: null,
  bothDown: null,
  bothUp: null,
  udp: null,
  peerClockOffsetMs: null,
  client: null,
  kernel: [],
  peerLoad: [],
};

/** The first span of a phase, or null when the run never came to it. */
export function phaseSpan(samples: Pick<RunSamples, 'phases'>, phase: Phase): PhaseSpan | null {
  return samples.phases.find((span) => span.phase === phase) ?? null;
}

/** Counters of the peer moved onto the run's clock; null when they, or the offset, are missing. */
export function onRunClock(series: CounterSeries | null, peerClockOffsetMs: number | null): CounterSeries | null {
  if (series === null || peerClockOffsetMs === null) return null;
  return { atMs: series.atMs.map((atMs) => atMs + peerClockOffsetMs), bytes: series.bytes };
}
