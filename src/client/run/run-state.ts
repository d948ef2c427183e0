import type { Phase, PhaseSpan, RunSamples, UnfinishedReason } from '@/core';

/** Samples as they grow during a run. Shapes as in RunSamples; arrays are replaced, never changed in place. */
export interface RunLog {
  readonly phases: readonly PhaseSpan[];
  readonly sentMs: readonly number[];
  readonly rttMs: readonly (number | null)[];
  readonly download: SeriesLog | null;
  readonly upload: SeriesLog | null;
  /** Best guess so far: the offset told by the fastest echo. */
  readonly clock: { readonly offsetMs: number; readonly rttMs: number } | null;
}

export interface SeriesLog {
  readonly atMs: readonly number[];
  readonly bytes: readonly (readonly number[])[];
}

/** All times are ms on the run's clock, which is 0 when the run is asked for. */
export type RunState =
  | { readonly status: 'opening'; readonly sinceMs: number; readonly log: RunLog }
  | { readonly status: 'measuring'; readonly phase: Phase; readonly sinceMs: number; readonly log: RunLog }
  | { readonly status: 'finished'; readonly log: RunLog }
  | { readonly status: 'failed'; readonly reason: UnfinishedReason; readonly log: RunLog };

export const EMPTY_LOG: RunLog = { phases: [], sentMs: [], rttMs: [], download: null, upload: null, clock: null };
export const STARTING: RunState = { status: 'opening', sinceMs: 0, log: EMPTY_LOG };

export type RunEvent =
  | { readonly kind: 'opened'; readonly nowMs: number }
  | { readonly kind: 'probe-sent'; readonly sequence: number; readonly nowMs: number }
  | { readonly kind: 'probe-echoed'; readonly sequence: number; readonly nowMs: number; readonly peerMs: number }
  | { readonly kind: 'download-counted'; readonly nowMs: number; readonly bytes: readonly number[] }
  | { readonly kind: 'upload-counted'; readonly peerMs: number; readonly bytes: readonly number[] }
  | { readonly kind: 'limit-reached'; readonly nowMs: number }
  | { readonly kind: 'tick'; readonly nowMs: number }
  | { readonly kind: 'lost'; readonly reason: UnfinishedReason; readonly nowMs: number }
  | { readonly kind: 'cancelled'; readonly nowMs: number };

export type RunEffect =
  | { readonly kind: 'start-probes' }
  | { readonly kind: 'start-download'; readonly streams: number }
  | { readonly kind: 'stop-download' }
  | { readonly kind: 'start-upload'; readonly streams: number }
  | { readonly kind: 'stop-upload' }
  | { readonly kind: 'close' };

export interface RunStep {
  readonly state: RunState;
  readonly effects: readonly RunEffect[];
}

/** What a run has gathered so far, in the form in which it is handed in. */
export function samplesOf({ log }: RunState): RunSamples {
  return {
    formatVersion: 1,
    phases: log.phases,
    probes: { sentMs: log.sentMs, rttMs: log.rttMs },
    download: log.download,
    upload: log.upload,
    peerClockOffsetMs: log.clock?.offsetMs ?? null,
  };
}
