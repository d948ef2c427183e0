import type { Phase } from '@/core';
import type { RunEvent, RunLog, SeriesLog } from './run-state';

/** Ends the phase that is going on and begins the next at the same instant; null ends the last one. */
export function enterPhase(log: RunLog, phase: Phase | null, nowMs: number): RunLog {
  const ended = log.phases.map((span, index) => (index === log.phases.length - 1 ? { ...span, toMs: nowMs } : span));
  return { ...log, phases: phase === null ? ended : [...ended, { phase, fromMs: nowMs, toMs: nowMs }] };
}

/** Moves the open end of the phase that is going on, for the live picture. */
export function stretchPhase(log: RunLog, nowMs: number): RunLog {
  return enterPhase(log, null, nowMs);
}

export function noteProbe(log: RunLog, sequence: number, nowMs: number): RunLog {
  if (sequence !== log.sentMs.length) return log;
  return { ...log, sentMs: [...log.sentMs, nowMs], rttMs: [...log.rttMs, null] };
}

/**
 * Enters an echo. The fastest round trip so far also tells best how the two clocks stand: the peer's time belongs to
 * the middle of the round trip, which begins when the probe has left this device. Echoes of unknown or already answered probes are passed over.
 */
export function noteEcho(
  log: RunLog,
  { sequence, nowMs, peerMs, waitedMs }: Omit<Extract<RunEvent, { kind: 'probe-echoed' }>, 'kind'>,
): RunLog {
  const askedMs = log.sentMs[sequence];
  if (askedMs === undefined || log.rttMs[sequence] !== null) return log;
  const sentMs = askedMs + waitedMs;
  const rttMs = nowMs - sentMs;
  const fastest = log.clock === null || rttMs < log.clock.rttMs;
  const clock = peerMs !== null && fastest ? { offsetMs: (sentMs + nowMs) / 2 - peerMs, rttMs } : log.clock;
  return { ...log, clock, rttMs: log.rttMs.map((rtt, index) => (index === sequence ? rttMs : rtt)) };
}

/**
 * Appends one sample of cumulative counters. A stream seen for the first time has counted 0 before. A sample whose
 * clock or counters go backwards is left out: the series stays true.
 */
export function appendCounters(series: SeriesLog | null, atMs: number, bytes: readonly number[]): SeriesLog {
  const before = series ?? { atMs: [], bytes: [] };
  const lastMs = before.atMs.at(-1);
  const falls = before.bytes.some((stream, index) => (bytes[index] ?? 0) < (stream.at(-1) ?? 0));
  if ((lastMs !== undefined && atMs <= lastMs) || falls) return before;
  const streams = Math.max(before.bytes.length, bytes.length);
  return {
    atMs: [...before.atMs, atMs],
    bytes: Array.from({ length: streams }, (_, index) => [
      ...(before.bytes[index] ?? before.atMs.map(() => 0)),
      bytes[index] ?? 0,
    ]),
  };
}

/** Round trips that came back, in the order sent, of probes sent at or after a time. */
export function echoesSince(log: RunLog, fromMs: number): number[] {
  const found: number[] = [];
  for (let index = log.sentMs.length - 1; index >= 0 && log.sentMs[index]! >= fromMs; index -= 1) {
    const rtt = log.rttMs[index];
    if (rtt !== null && rtt !== undefined) found.unshift(rtt);
  }
  return found;
}

/** Notes how many streams pull from now on. */
export function noteStreams(log: RunLog, phase: Phase, atMs: number, streams: number): RunLog {
  return { ...log, streams: [...log.streams, { phase, atMs, streams }] };
}
