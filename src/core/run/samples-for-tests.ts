import type { RunConditions } from './run-conditions';
import { NO_SAMPLES, type RunSamples } from './run-samples';

/** A line that does just what it is told, for tests whose truth is known. */
export interface PlainLine {
  readonly downBps: number;
  readonly upBps: number;
  readonly idleMs: number;
  readonly loadedDownMs: number;
  readonly loadedUpMs: number;
}

const PHASES = { idle: [0, 2000], download: [2000, 7000], settle: [7000, 7500], upload: [7500, 12500] } as const;
/** The peer's clock is behind the run's by this, so that forgetting the offset shows. */
const OFFSET_MS = 5_000_000;

function counters(rateBps: number, fromMs: number, toMs: number) {
  const atMs: number[] = [];
  const bytes: number[] = [];
  for (let at = fromMs; at <= toMs; at += 50) {
    atMs.push(at);
    bytes.push(Math.round(((at - fromMs) * rateBps) / 8000));
  }
  return { atMs, bytes: [bytes] };
}

/** Raw samples of a run over such a line. */
export function plainSamples(line: PlainLine): RunSamples {
  const sentMs = Array.from({ length: 250 }, (_, index) => index * 50);
  const upload = counters(line.upBps, PHASES.upload[0], PHASES.upload[1]);
  const rttAt = (at: number) => {
    if (at >= PHASES.upload[0]) return line.loadedUpMs;
    return at >= PHASES.download[0] && at < PHASES.download[1] ? line.loadedDownMs : line.idleMs;
  };
  return {
    ...NO_SAMPLES,
    phases: (Object.keys(PHASES) as (keyof typeof PHASES)[]).map((phase) => ({
      phase,
      fromMs: PHASES[phase][0],
      toMs: PHASES[phase][1],
    })),
    probes: { sentMs, rttMs: sentMs.map(rttAt) },
    download: counters(line.downBps, PHASES.download[0], PHASES.download[1]),
    upload: { ...upload, atMs: upload.atMs.map((at) => at - OFFSET_MS) },
    peerClockOffsetMs: OFFSET_MS,
  };
}

export const TARNFELL_PLAN = {
  name: 'Tarnfell Fibre 500/100',
  downBps: 500e6,
  upBps: 100e6,
  leastDownBps: null,
  leastUpBps: null,
  basis: 'payload',
  fullFrom: 0.9,
} as const;

export const OVER_GIGABIT: RunConditions = {
  reach: 'internet',
  link: { medium: 'wired', negotiatedBps: 1e9, mtuBytes: 1500 },
  plan: TARNFELL_PLAN,
  sameMachine: false,
  practice: false,
  ipVersion: 4,
  pageHiddenMs: 0,
  peerLinkBps: null,
  otherPeerThanUsual: false,
};
