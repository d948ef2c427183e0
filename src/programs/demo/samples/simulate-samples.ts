import {
  NO_SAMPLES,
  rampMs,
  type CounterSeries,
  type Phase,
  type PhaseSpan,
  type RandomSource,
  type RunSamples,
} from '@/core';

/** How a line behaves in one direction of a simulated run. */
export interface SimulatedDirection {
  readonly rateBps: number;
  /** Delay that this direction adds when full, ms. */
  readonly queueMs: number;
  /** Size of the random swing of each 50 ms sample, as a share of the rate. */
  readonly swing: number;
  /** Share of the time in which almost nothing gets through. */
  readonly dips: number;
}

export interface SimulatedLine {
  readonly idleMs: number;
  readonly jitterMs: number;
  readonly down: SimulatedDirection;
  readonly up: SimulatedDirection;
}

const SAMPLE_MS = 50;
const IDLE_PHASE_MS = 2000;
const COUNTED_MS = 3300;
const STREAMS = 3;
/** The peer's clock in simulated runs is ahead of the run's by this, ms. */
const PEER_CLOCK_AHEAD_MS = 73_000;

function simulateCounters(line: SimulatedDirection, fromMs: number, toMs: number, random: RandomSource): CounterSeries {
  const atMs: number[] = [];
  const bytes: number[][] = Array.from({ length: STREAMS }, () => []);
  const totals = new Array<number>(STREAMS).fill(0);
  let dipLeftMs = 0;
  let stepMs = SAMPLE_MS;
  for (let at = fromMs + 12; at <= toMs; at += stepMs) {
    const growing = 1 - Math.exp(-(at - fromMs) / 180);
    if (dipLeftMs <= 0 && random() < line.dips / 4) dipLeftMs = 4 * SAMPLE_MS;
    dipLeftMs -= SAMPLE_MS;
    const share = dipLeftMs > 0 ? 0.08 : 1 + (random() - 0.5) * 2 * line.swing;
    const moved = (line.rateBps * growing * share * stepMs) / 8000;
    atMs.push(at);
    bytes.forEach((stream, index) => {
      totals[index]! += Math.round(moved / STREAMS);
      stream.push(totals[index]!);
    });
    stepMs = SAMPLE_MS + (random() - 0.5) * 3;
  }
  return { atMs, bytes };
}

/**
 * Raw samples of a run over a line that behaves as described, in the form in which a client hands them in. The figures
 * of a demo run are computed from these by the same code as those of a real one.
 */
export function simulateSamples(line: SimulatedLine, random: RandomSource): RunSamples {
  const directionMs = rampMs(line.idleMs) + COUNTED_MS;
  const settleMs = Math.max(250, line.down.queueMs * 1.5);
  const lengths: [Phase, number][] = [
    ['idle', IDLE_PHASE_MS],
    ['download', directionMs],
    ['settle', settleMs],
    ['upload', directionMs],
  ];
  let nowMs = 40;
  const phases: PhaseSpan[] = lengths.map(([phase, lengthMs]) => {
    const span = { phase, fromMs: nowMs, toMs: nowMs + lengthMs };
    nowMs = span.toMs;
    return span;
  });
  const [idle, download, settle, upload] = phases as [PhaseSpan, PhaseSpan, PhaseSpan, PhaseSpan];
  const queueAt = (atMs: number): number => {
    if (atMs < download.fromMs) return 0;
    if (atMs < download.toMs) return line.down.queueMs * (1 - Math.exp(-(atMs - download.fromMs) / 300));
    if (atMs < settle.toMs) return line.down.queueMs * Math.exp(-(atMs - settle.fromMs) / 60);
    return line.up.queueMs * (1 - Math.exp(-(atMs - upload.fromMs) / 400));
  };
  const sentMs: number[] = [];
  const rttMs: number[] = [];
  for (let at = idle.fromMs; at < upload.toMs - line.up.queueMs; at += SAMPLE_MS) {
    const queue = queueAt(at);
    const waits = line.jitterMs * -Math.log(1 - random() * 0.98);
    sentMs.push(at);
    rttMs.push(line.idleMs + waits + queue * (0.93 + random() * 0.1));
  }
  const uploaded = simulateCounters(line.up, upload.fromMs, upload.toMs, random);
  return {
    ...NO_SAMPLES,
    phases,
    streams: [
      { phase: 'download', atMs: download.fromMs, streams: STREAMS },
      { phase: 'upload', atMs: upload.fromMs, streams: STREAMS },
    ],
    probes: { sentMs, rttMs },
    download: simulateCounters(line.down, download.fromMs, download.toMs, random),
    upload: { atMs: uploaded.atMs.map((at) => at + PEER_CLOCK_AHEAD_MS), bytes: uploaded.bytes },
    peerClockOffsetMs: -PEER_CLOCK_AHEAD_MS,
  };
}
