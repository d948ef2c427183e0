import {
  echoedBetween,
  finalBytes,
  hasDrained,
  isSettled,
  leastCountedMs,
  median,
  rampMs,
  RATE_BIN_MS,
  rateBins,
  type CounterSeries,
  type Phase,
  type UnfinishedReason,
} from '@/core';
import { appendCounters, echoesSince, enterPhase, noteEcho, noteProbe, stretchPhase } from './run-log';
import type { RunProfile } from './run-profile';
import type { RunEffect, RunEvent, RunLog, RunState, RunStep } from './run-state';

type Measuring = Extract<RunState, { status: 'measuring' }>;

const stay = (state: RunState): RunStep => ({ state, effects: [] });

function fail(state: RunState, reason: UnfinishedReason, nowMs: number): RunStep {
  return { state: { status: 'failed', reason, log: enterPhase(state.log, null, nowMs) }, effects: [{ kind: 'close' }] };
}

function idleMedianMs(log: RunLog): number | null {
  const idle = log.phases.find((span) => span.phase === 'idle');
  if (idle === undefined) return null;
  return median(echoedBetween({ sentMs: log.sentMs, rttMs: log.rttMs }, idle.fromMs, idle.toMs));
}

function enter(
  state: Measuring | Extract<RunState, { status: 'opening' }>,
  phase: Phase,
  nowMs: number,
  effects: RunEffect[],
): RunStep {
  return {
    state: { status: 'measuring', phase, sinceMs: nowMs, log: enterPhase(state.log, phase, nowMs) },
    effects,
  };
}

/** Whether a direction has counted enough and its last seconds agree (docs/measurement.md, "Stop"). */
function knowsEnough(series: CounterSeries | null, idleMs: number | null): boolean {
  const startedMs = series?.atMs[0];
  if (series === null || startedMs === undefined) return false;
  const countedFromMs = startedMs + rampMs(idleMs);
  if (series.atMs.at(-1)! - countedFromMs < leastCountedMs(idleMs)) return false;
  return isSettled(rateBins(series, RATE_BIN_MS, countedFromMs).bps, RATE_BIN_MS);
}

function tickDirection(
  state: Measuring,
  direction: 'download' | 'upload',
  nowMs: number,
  profile: RunProfile,
): RunStep {
  const series = state.log[direction];
  const elapsedMs = nowMs - state.sinceMs;
  const silent = (finalBytes(series) ?? 0) === 0;
  if (silent && elapsedMs > profile.silenceMs)
    return fail(state, direction === 'download' ? 'no-download' : 'no-upload', nowMs);
  if (elapsedMs < profile.mostDirectionMs && !knowsEnough(series, idleMedianMs(state.log))) return stay(state);
  return endDirection(state, direction, nowMs);
}

function endDirection(state: Measuring, direction: 'download' | 'upload', nowMs: number): RunStep {
  if (direction === 'download') return enter(state, 'settle', nowMs, [{ kind: 'stop-download' }]);
  return {
    state: { status: 'finished', log: enterPhase(state.log, null, nowMs) },
    effects: [{ kind: 'stop-upload' }, { kind: 'close' }],
  };
}

function tick(state: Measuring, nowMs: number, profile: RunProfile): RunStep {
  const elapsedMs = nowMs - state.sinceMs;
  switch (state.phase) {
    case 'idle':
      if (elapsedMs < profile.idleMs) return stay(state);
      if (idleMedianMs(state.log) === null) return fail(state, 'no-echo', nowMs);
      return enter(state, 'download', nowMs, [{ kind: 'start-download', streams: profile.streams }]);
    case 'download':
    case 'upload':
      return tickDirection(state, state.phase, nowMs, profile);
    case 'settle': {
      const idleMs = idleMedianMs(state.log);
      const drained = idleMs !== null && hasDrained(echoesSince(state.log, state.sinceMs), idleMs);
      if (!drained && elapsedMs < profile.mostSettleMs) return stay(state);
      return enter(state, 'upload', nowMs, [{ kind: 'start-upload', streams: profile.streams }]);
    }
  }
}

function measure(state: Measuring, event: RunEvent, profile: RunProfile): RunStep {
  const { log } = state;
  switch (event.kind) {
    case 'probe-sent':
      return stay({ ...state, log: noteProbe(log, event.sequence, event.nowMs) });
    case 'probe-echoed':
      return stay({ ...state, log: noteEcho(log, event.sequence, event.nowMs, event.peerMs) });
    case 'download-counted':
      if (state.phase !== 'download') return stay(state);
      return stay({ ...state, log: { ...log, download: appendCounters(log.download, event.nowMs, event.bytes) } });
    case 'upload-counted':
      if (state.phase !== 'upload') return stay(state);
      return stay({ ...state, log: { ...log, upload: appendCounters(log.upload, event.peerMs, event.bytes) } });
    case 'limit-reached':
      if (state.phase !== 'download' && state.phase !== 'upload') return stay(state);
      return endDirection(state, state.phase, event.nowMs);
    case 'tick':
      return tick({ ...state, log: stretchPhase(log, event.nowMs) }, event.nowMs, profile);
    case 'lost':
      return fail(state, event.reason, event.nowMs);
    case 'cancelled':
      return fail(state, 'cancelled', event.nowMs);
    case 'opened':
      return stay(state);
  }
}

/**
 * The course of a run as a pure transition: idle delay → download → settle → upload → finished, or failed with a
 * reason at any moment. Once finished or failed, nothing changes it. The runner performs the effects.
 */
export function stepRun(state: RunState, event: RunEvent, profile: RunProfile): RunStep {
  switch (state.status) {
    case 'finished':
    case 'failed':
      return stay(state);
    case 'measuring':
      return measure(state, event, profile);
    case 'opening':
      if (event.kind === 'opened') return enter(state, 'idle', event.nowMs, [{ kind: 'start-probes' }]);
      if (event.kind === 'lost') return fail(state, event.reason, event.nowMs);
      if (event.kind === 'cancelled') return fail(state, 'cancelled', event.nowMs);
      if (event.kind === 'tick' && event.nowMs - state.sinceMs > profile.openDeadlineMs)
        return fail(state, 'peer-unreachable', event.nowMs);
      return stay(state);
  }
}
