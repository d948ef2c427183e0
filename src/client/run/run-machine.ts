import {
  countedFromMs,
  directionBytes,
  echoedBetween,
  figureOf,
  finalBytes,
  firstStreams,
  hasDrained,
  isSettled,
  leastCountedMs,
  median,
  mostDirectionMs,
  noteTrouble,
  rampMs,
  RATE_BIN_MS,
  rateBins,
  type Phase,
  type RunProfile,
  type UnfinishedReason,
} from '@/core';
import { paceUnderLoad } from './probe-pace';
import { growPull } from './pull';
import { rateBetween } from './rate-between';
import { appendCounters, echoesSince, enterPhase, noteEcho, noteProbe, noteStreams, stretchPhase } from './run-log';
import type { LoadDirection, Pull, RunEffect, RunEvent, RunLog, RunState, RunStep, SeriesName } from './run-state';

type Measuring = Extract<RunState, { status: 'measuring' }>;
type LoadPhase = Exclude<Phase, 'idle' | 'settle' | 'paced'>;

/** So many round trips more a silent direction is waited for, and a queue to drain. */
const SILENT_ROUND_TRIPS = 5;
const SETTLE_ROUND_TRIPS = 10;

/** The last UDP replies and the peer's receipt are waited for at most this long, ms. */
const CLOSING_MS = 6000;

const LOADS: Record<LoadPhase, readonly LoadDirection[]> = {
  download: ['download'],
  upload: ['upload'],
  both: ['download', 'upload'],
};

/** Which series a phase fills, the one whose rate decides first. */
const FILLS: Record<LoadPhase, readonly SeriesName[]> = {
  download: ['download'],
  upload: ['upload'],
  both: ['bothDown', 'bothUp'],
};

/** What happened is kept, whenever it happened. */
function noteTroubleIn<State extends RunState>(
  state: State,
  { code, detail, nowMs }: Extract<RunEvent, { kind: 'troubled' }>,
): State {
  const troubles = noteTrouble(state.log.troubles, { code, detail, atMs: nowMs });
  return { ...state, log: { ...state.log, troubles } };
}

/** Nothing arrived: whether that is the way there, or the client could not take it in. */
function silenceReason(silent: SeriesName, { troubles }: RunLog): UnfinishedReason {
  if (silent === 'upload' || silent === 'bothUp') return 'no-upload';
  return troubles.some(({ code }) => code === 'download-unreadable') ? 'download-unreadable' : 'no-download';
}

const stay = (state: RunState): RunStep => ({ state, effects: [] });

function fail(state: RunState, reason: UnfinishedReason, nowMs: number): RunStep {
  return { state: { status: 'failed', reason, log: enterPhase(state.log, null, nowMs) }, effects: [{ kind: 'close' }] };
}

function idleMedianMs(log: RunLog): number | null {
  const idle = log.phases.find((span) => span.phase === 'idle');
  if (idle === undefined) return null;
  return median(echoedBetween({ sentMs: log.sentMs, rttMs: log.rttMs }, idle.fromMs, idle.toMs));
}

/** Enters a step of the profile, with the effects that begin it; after the last one the run closes. */
function enterStep(
  log: RunLog,
  step: number,
  nowMs: number,
  profile: RunProfile,
  ending: readonly RunEffect[],
): RunStep {
  const phase = profile.steps[step];
  if (phase === undefined)
    return {
      state: { status: 'closing', sinceMs: nowMs, log: enterPhase(log, null, nowMs) },
      effects: [...ending, { kind: 'finish-udp' }],
    };
  const entered = enterPhase(log, phase, nowMs);
  const base = { status: 'measuring', step, phase, sinceMs: nowMs } as const;
  if (phase === 'idle' || phase === 'settle')
    return { state: { ...base, pull: null, log: entered }, effects: [...ending] };
  if (phase === 'paced')
    return { state: { ...base, pull: null, log: entered }, effects: [...ending, { kind: 'start-pace' }] };
  // Both directions share what a browser can open: half of the streams each.
  const idleMs = idleMedianMs(entered);
  const streams = phase === 'both' ? Math.max(1, Math.floor(profile.streams.most / 2)) : firstStreams(profile, idleMs);
  const pull: Pull = { streams, sinceMs: nowMs, rateBefore: null, grown: phase === 'both', paced: false };
  return {
    state: { ...base, pull, log: noteStreams(entered, phase, nowMs, streams) },
    effects: [
      ...ending,
      ...LOADS[phase].map((direction) => ({ kind: 'start-load', direction, streams, idleRttMs: idleMs }) as const),
    ],
  };
}

function endingOf(phase: Phase): RunEffect[] {
  switch (phase) {
    case 'idle':
    case 'settle':
      return [];
    case 'paced':
      return [{ kind: 'stop-pace' }];
    case 'download':
    case 'upload':
    case 'both':
      return [
        ...LOADS[phase].map((direction) => ({ kind: 'stop-load', direction }) as const),
        { kind: 'pace-probes', perSecond: null },
      ];
  }
}

function endPhase(state: Measuring, nowMs: number, profile: RunProfile): RunStep {
  return enterStep(state.log, state.step + 1, nowMs, profile, endingOf(state.phase));
}

/** Upload series are on the peer's clock. */
function offsetOf(name: SeriesName, log: RunLog): number {
  return name === 'upload' || name === 'bothUp' ? (log.clock?.offsetMs ?? 0) : 0;
}

/** Whether a series has counted enough and its last seconds agree (docs/measurement.md, "Stop"). */
function knowsEnough(log: RunLog, phase: LoadPhase, name: SeriesName, { steady }: RunProfile): boolean {
  const series = log.series[name];
  const startedMs = series?.atMs[0];
  if (series === null || startedMs === undefined) return false;
  const idleMs = idleMedianMs(log);
  const offsetMs = offsetOf(name, log);
  const changesMs = log.streams.filter((change) => change.phase === phase).map(({ atMs }) => atMs - offsetMs);
  const fromMs = countedFromMs(startedMs, changesMs.slice(1), idleMs, steady);
  const countedMs = series.atMs.at(-1)! - fromMs;
  if (countedMs < leastCountedMs(idleMs, steady, rateBetween(series, fromMs, series.atMs.at(-1)!))) return false;
  const { bps, ...bins } = rateBins(series, RATE_BIN_MS, fromMs);
  // What ends the direction is what its figure is judged by: one that would be called unsettled goes on.
  return isSettled(bps, RATE_BIN_MS, steady) && figureOf({ ...bins, bps }, steady)?.unsettledBy === null;
}

/** What the slower series of a phase has carried since its ramp, bits per second; null while that is not known. */
function slowestBps({ log }: Measuring, phase: LoadPhase): number | null {
  const idleMs = idleMedianMs(log);
  const rates = FILLS[phase].map((name) => {
    const series = log.series[name];
    const startedMs = series?.atMs[0];
    if (series === null || startedMs === undefined) return null;
    return rateBetween(series, Math.min(startedMs + rampMs(idleMs), series.atMs.at(-1)! - 1), series.atMs.at(-1)!);
  });
  return rates.includes(null) ? null : Math.min(...(rates as number[]));
}

function tickLoad(state: Measuring, phase: LoadPhase, pull: Pull, nowMs: number, profile: RunProfile): RunStep {
  const { log } = state;
  const elapsedMs = nowMs - state.sinceMs;
  const idleMs = idleMedianMs(log);
  if (elapsedMs > profile.silenceMs + SILENT_ROUND_TRIPS * (idleMs ?? 0)) {
    const silent = FILLS[phase].find((name) => (finalBytes(log.series[name]) ?? 0) === 0);
    if (silent !== undefined) return fail(state, silenceReason(silent, log), nowMs);
  }
  if (elapsedMs >= mostDirectionMs(profile, idleMs, slowestBps(state, phase))) return endPhase(state, nowMs, profile);
  const mostBytes = directionBytes(profile) ?? Infinity;
  if (FILLS[phase].some((name) => (finalBytes(log.series[name]) ?? 0) >= mostBytes))
    return endPhase(state, nowMs, profile);
  if (profile.udp && !pull.paced) {
    const perSecond = paceUnderLoad(
      FILLS[phase].map((name) => log.series[name]),
      idleMedianMs(log),
      profile.steady,
    );
    if (perSecond !== null)
      return { state: { ...state, pull: { ...pull, paced: true } }, effects: [{ kind: 'pace-probes', perSecond }] };
  }
  const [leading] = FILLS[phase] as [SeriesName];
  const growth = growPull(pull, log.series[leading], offsetOf(leading, log), idleMedianMs(log), profile);
  if (growth.verdict === 'wait') return stay(state);
  if (growth.verdict === 'add') {
    const { streams } = growth.pull;
    return {
      state: { ...state, pull: { ...growth.pull, sinceMs: nowMs }, log: noteStreams(log, phase, nowMs, streams) },
      effects: LOADS[phase].map((direction) => ({ kind: 'add-stream', direction, streams }) as const),
    };
  }
  const enough =
    profile.stopsEarly &&
    elapsedMs >= profile.leastDirectionMs &&
    FILLS[phase].every((name) => knowsEnough(log, phase, name, profile));
  return enough ? endPhase(state, nowMs, profile) : stay({ ...state, pull: growth.pull });
}

function tick(state: Measuring, nowMs: number, profile: RunProfile): RunStep {
  const elapsedMs = nowMs - state.sinceMs;
  switch (state.phase) {
    case 'idle':
      if (elapsedMs < profile.idleMs) return stay(state);
      return idleMedianMs(state.log) === null ? fail(state, 'no-echo', nowMs) : endPhase(state, nowMs, profile);
    case 'settle': {
      const idleMs = idleMedianMs(state.log);
      const drained = idleMs !== null && hasDrained(echoesSince(state.log, state.sinceMs), idleMs);
      const mostMs = profile.mostSettleMs + SETTLE_ROUND_TRIPS * (idleMs ?? 0);
      return drained || elapsedMs >= mostMs ? endPhase(state, nowMs, profile) : stay(state);
    }
    case 'paced':
      return elapsedMs >= profile.mostDirectionMs ? endPhase(state, nowMs, profile) : stay(state);
    case 'download':
    case 'upload':
    case 'both':
      return tickLoad(state, state.phase, state.pull!, nowMs, profile);
  }
}

/** Puts a sample of counters into the series that the phase fills; samples that come in other phases are passed over. */
function count(state: Measuring, direction: LoadDirection, atMs: number, bytes: readonly number[]): RunStep {
  const { phase, log } = state;
  const bothName = direction === 'download' ? 'bothDown' : 'bothUp';
  const name: SeriesName | null = phase === 'both' ? bothName : phase === direction ? direction : null;
  if (name === null) return stay(state);
  // The peer counts on through the session: what was uploaded before does not belong to this phase.
  const before = name === 'bothUp' ? log.series.upload : null;
  const counted = bytes.map((count, stream) => count - (before?.bytes[stream]?.at(-1) ?? 0));
  const series = { ...log.series, [name]: appendCounters(log.series[name], atMs, counted) };
  return stay({ ...state, log: { ...log, series } });
}

function measure(state: Measuring, event: RunEvent, profile: RunProfile): RunStep {
  const { log } = state;
  switch (event.kind) {
    case 'probe-sent':
      return stay({ ...state, log: noteProbe(log, event.sequence, event.nowMs) });
    case 'probe-echoed':
      return stay({ ...state, log: noteEcho(log, event) });
    case 'download-counted':
      return count(state, 'download', event.nowMs, event.bytes);
    case 'upload-counted':
      return count(state, 'upload', event.peerMs, event.bytes);
    case 'stalled':
      return stay({ ...state, log: { ...log, stalls: [...log.stalls, { atMs: event.nowMs, lateMs: event.lateMs }] } });
    case 'troubled':
      return stay(noteTroubleIn(state, event));
    case 'kernel-seen':
      return stay({ ...state, log: { ...log, kernel: [...log.kernel, ...event.sightings] } });
    case 'peer-load':
      return stay({ ...state, log: { ...log, peerLoad: [...log.peerLoad, event.sample] } });
    case 'limit-reached':
      return state.phase === 'idle' || state.phase === 'settle' ? stay(state) : endPhase(state, event.nowMs, profile);
    case 'tick':
      return tick({ ...state, log: stretchPhase(log, event.nowMs) }, event.nowMs, profile);
    case 'lost':
      return fail(state, event.reason, event.nowMs);
    case 'cancelled':
      return fail(state, 'cancelled', event.nowMs);
    case 'opened':
    case 'udp-finished':
      return stay(state);
  }
}

function close(state: Extract<RunState, { status: 'closing' }>, event: RunEvent): RunStep {
  const finish = (log: RunLog): RunStep => ({ state: { status: 'finished', log }, effects: [{ kind: 'close' }] });
  switch (event.kind) {
    case 'probe-echoed':
      return stay({ ...state, log: noteEcho(state.log, event) });
    case 'udp-finished':
      return finish({ ...state.log, udp: event.udp });
    case 'tick':
      return event.nowMs - state.sinceMs > CLOSING_MS ? finish(state.log) : stay(state);
    // Everything was measured: a connection that breaks now takes nothing away.
    case 'lost':
      return finish(state.log);
    case 'cancelled':
      return fail(state, 'cancelled', event.nowMs);
    case 'troubled':
      return stay(noteTroubleIn(state, event));
    case 'opened':
    case 'probe-sent':
    case 'download-counted':
    case 'upload-counted':
    case 'stalled':
    case 'kernel-seen':
    case 'peer-load':
    case 'limit-reached':
      return stay(state);
  }
}

/**
 * The course of a run as a pure transition: the steps of its profile in order, then finished, or failed with a reason at
 * any moment. Once finished or failed, nothing changes it. The runner performs the effects.
 */
export function stepRun(state: RunState, event: RunEvent, profile: RunProfile): RunStep {
  switch (state.status) {
    case 'finished':
    case 'failed':
      return stay(state);
    case 'measuring':
      return measure(state, event, profile);
    case 'closing':
      return close(state, event);
    case 'opening':
      if (event.kind === 'opened') {
        const step = enterStep(state.log, 0, event.nowMs, profile, []);
        return { ...step, effects: [{ kind: 'start-probes' }, ...step.effects] };
      }
      if (event.kind === 'troubled') return stay(noteTroubleIn(state, event));
      if (event.kind === 'lost') return fail(state, event.reason, event.nowMs);
      if (event.kind === 'cancelled') return fail(state, 'cancelled', event.nowMs);
      if (event.kind === 'tick' && event.nowMs - state.sinceMs > profile.openDeadlineMs)
        return fail(state, 'peer-unreachable', event.nowMs);
      return stay(state);
  }
}
