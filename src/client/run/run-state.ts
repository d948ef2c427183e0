import {
  NO_SAMPLES,
  type ClientSightings,
  type ClientTrouble,
  type KernelSighting,
  type PeerLoadSample,
  type Phase,
  type PhaseSpan,
  type ProfileName,
  type RunSamples,
  type Stall,
  type StreamChange,
  type TroubleCode,
  type UdpSeries,
  type UnfinishedReason,
} from '@/core';

export interface SeriesLog {
  readonly atMs: readonly number[];
  readonly bytes: readonly (readonly number[])[];
}

/** The counter series of a run, by what they count. */
export const SERIES = ['download', 'upload', 'bothDown', 'bothUp'] as const;
export type SeriesName = (typeof SERIES)[number];

/** Samples as they grow during a run. Shapes as in RunSamples; arrays are replaced, never changed in place. */
export interface RunLog {
  readonly phases: readonly PhaseSpan[];
  readonly streams: readonly StreamChange[];
  readonly sentMs: readonly number[];
  readonly rttMs: readonly (number | null)[];
  readonly series: Readonly<Record<SeriesName, SeriesLog | null>>;
  /** Best guess so far: the offset told by the fastest echo. */
  readonly clock: { readonly offsetMs: number; readonly rttMs: number } | null;
  readonly stalls: readonly Stall[];
  readonly troubles: readonly ClientTrouble[];
  readonly kernel: readonly KernelSighting[];
  readonly peerLoad: readonly PeerLoadSample[];
  readonly udp: UdpSeries | null;
}

/**
 * How many streams pull, since when, and what the one before brought; `grown` once more of them do not help, `paced` once
 * the UDP probes were made as few as the line bears.
 */
export interface Pull {
  readonly streams: number;
  readonly sinceMs: number;
  readonly rateBefore: number | null;
  readonly grown: boolean;
  readonly paced: boolean;
}

/** All times are ms on the run's clock, which is 0 when the run is asked for. `step` counts the profile's steps. */
export type RunState =
  | { readonly status: 'opening'; readonly sinceMs: number; readonly log: RunLog }
  | {
      readonly status: 'measuring';
      readonly step: number;
      readonly phase: Phase;
      readonly sinceMs: number;
      readonly pull: Pull | null;
      readonly log: RunLog;
    }
  /** Waiting for the last UDP replies. */
  | { readonly status: 'closing'; readonly sinceMs: number; readonly log: RunLog }
  | { readonly status: 'finished'; readonly log: RunLog }
  | { readonly status: 'failed'; readonly reason: UnfinishedReason; readonly log: RunLog };

export const EMPTY_LOG: RunLog = {
  phases: [],
  streams: [],
  sentMs: [],
  rttMs: [],
  series: { download: null, upload: null, bothDown: null, bothUp: null },
  clock: null,
  stalls: [],
  troubles: [],
  kernel: [],
  peerLoad: [],
  udp: null,
};
export const STARTING: RunState = { status: 'opening', sinceMs: 0, log: EMPTY_LOG };

export type RunEvent =
  | { readonly kind: 'opened'; readonly nowMs: number }
  | { readonly kind: 'probe-sent'; readonly sequence: number; readonly nowMs: number }
  | {
      readonly kind: 'probe-echoed';
      readonly sequence: number;
      readonly nowMs: number;
      /** Null: the far end tells no time. */
      readonly peerMs: number | null;
      /** How long it lay on this device before it was sent. */
      readonly waitedMs: number;
    }
  | { readonly kind: 'download-counted'; readonly nowMs: number; readonly bytes: readonly number[] }
  | { readonly kind: 'upload-counted'; readonly peerMs: number; readonly bytes: readonly number[] }
  | { readonly kind: 'stalled'; readonly nowMs: number; readonly lateMs: number }
  | { readonly kind: 'troubled'; readonly code: TroubleCode; readonly detail: string; readonly nowMs: number }
  | { readonly kind: 'kernel-seen'; readonly sightings: readonly KernelSighting[] }
  | { readonly kind: 'peer-load'; readonly sample: PeerLoadSample }
  | { readonly kind: 'udp-finished'; readonly udp: UdpSeries | null; readonly nowMs: number }
  | { readonly kind: 'limit-reached'; readonly nowMs: number }
  | { readonly kind: 'tick'; readonly nowMs: number }
  | { readonly kind: 'lost'; readonly reason: UnfinishedReason; readonly nowMs: number }
  | { readonly kind: 'cancelled'; readonly nowMs: number };

export type LoadDirection = 'download' | 'upload';

export type RunEffect =
  | { readonly kind: 'start-probes' }
  | {
      readonly kind: 'start-load';
      readonly direction: LoadDirection;
      readonly streams: number;
      readonly idleRttMs: number | null;
    }
  | { readonly kind: 'add-stream'; readonly direction: LoadDirection; readonly streams: number }
  | { readonly kind: 'stop-load'; readonly direction: LoadDirection }
  /** UDP probes beside a load; null: as many as without one. */
  | { readonly kind: 'pace-probes'; readonly perSecond: number | null }
  | { readonly kind: 'start-pace' }
  | { readonly kind: 'stop-pace' }
  | { readonly kind: 'finish-udp' }
  | { readonly kind: 'close' };

export interface RunStep {
  readonly state: RunState;
  readonly effects: readonly RunEffect[];
}

/** What a run has gathered so far, in the form in which it is handed in. */
export function samplesOf({ log }: RunState, profile: ProfileName, client: ClientSightings | null): RunSamples {
  return {
    ...NO_SAMPLES,
    ...log.series,
    profile,
    phases: log.phases,
    streams: log.streams,
    probes: { sentMs: log.sentMs, rttMs: log.rttMs },
    udp: log.udp,
    peerClockOffsetMs: log.clock?.offsetMs ?? null,
    client,
    kernel: log.kernel,
    peerLoad: log.peerLoad,
  };
}
