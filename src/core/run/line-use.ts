import { finalBytes } from '../measure/rate/counter-series';
import type { Receipt } from './receipt';
import type { RunSamples } from './run-samples';

/** What others moved over the provider's line around a run, as its router counted it; bits per second, null: not known. */
export interface LineUse {
  readonly downBps: number | null;
  readonly upBps: number | null;
  /** The stretch that it is the mean of, ms since 1970: it holds the whole run. */
  readonly fromMs: number;
  readonly untilMs: number;
}

/** The mean load of a port from a moment on, until the next one, Mb/s. */
export interface LoadStep {
  readonly atMs: number;
  readonly mbps: number;
}

/** What a run moved itself, payload bytes, and when. */
export interface OwnTraffic {
  readonly fromMs: number;
  readonly untilMs: number;
  readonly downBytes: number;
  readonly upBytes: number;
}

/**
 * Counters of routers count frames: a full one of Ethernet has 1514 bytes without its checksum (IF-MIB, RFC 2863 ifInOctets) and carries 1448
 * of payload with TCP timestamps over IPv4.
 */
const FRAME_SHARE = 1514 / 1448;
/** A full segment in two is acknowledged (RFC 9293 §3.8.6.3), by a frame of 66 bytes. */
const ACK_SHARE = 66 / (2 * 1448);
/** A reading that is missing now and then makes a step longer; after more than so many nobody knows. */
const MOST_STEPS_LONG = 3.5;

/** The steps that hold a stretch, without a gap, from the one in which it begins to the one in which it ends; null: they do not. */
function covering(steps: readonly LoadStep[], { fromMs, untilMs }: OwnTraffic, everyMs: number) {
  const first = steps.findLastIndex(({ atMs }) => atMs <= fromMs);
  const last = steps.findIndex(({ atMs }) => atMs >= untilMs);
  if (first < 0 || last < 0) return null;
  const held = steps.slice(first, last + 1);
  const whole = held.every(
    ({ atMs }, place) => place === 0 || atMs - held[place - 1]!.atMs <= MOST_STEPS_LONG * everyMs,
  );
  return whole ? held : null;
}

/** What others moved one way over the stretch that holds a run: all that the port moved, less the run's own frames. */
function othersOneWay(steps: readonly LoadStep[], own: OwnTraffic, ownBytes: number, everyMs: number) {
  const held = covering(steps, own, everyMs);
  if (held === null) return null;
  const [fromMs, untilMs] = [held[0]!.atMs, held.at(-1)!.atMs];
  const bits = held
    .slice(1)
    .reduce((sum, { atMs }, place) => sum + held[place]!.mbps * 1000 * (atMs - held[place]!.atMs), 0);
  return { fromMs, untilMs, bps: Math.max(0, (1000 * (bits - 8 * ownBytes)) / (untilMs - fromMs)) };
}

/**
 * What others moved over the line around a run. `down`, `up`: the loads of its router's port, in the order of time; `everyMs`: how often
 * it is read. Null: the readings do not hold the whole run.
 */
export function lineUseOf(
  loads: { readonly down: readonly LoadStep[]; readonly up: readonly LoadStep[] },
  own: OwnTraffic,
  everyMs: number,
): LineUse | null {
  const { downBytes, upBytes } = own;
  const down = othersOneWay(loads.down, own, FRAME_SHARE * downBytes + ACK_SHARE * upBytes, everyMs);
  const up = othersOneWay(loads.up, own, FRAME_SHARE * upBytes + ACK_SHARE * downBytes, everyMs);
  const spans = [down, up].filter((way) => way !== null);
  if (spans.length === 0) return null;
  return {
    ...{ downBps: down?.bps ?? null, upBps: up?.bps ?? null },
    fromMs: Math.min(...spans.map(({ fromMs }) => fromMs)),
    untilMs: Math.max(...spans.map(({ untilMs }) => untilMs)),
  };
}

/** What a run moved, by what the peer signed where it did, else by what was counted. */
export function ownBytes(
  samples: Pick<RunSamples, 'download' | 'upload' | 'bothDown' | 'bothUp'>,
  receipt: Receipt | null | undefined,
): Pick<OwnTraffic, 'downBytes' | 'upBytes'> {
  if (receipt) return { downBytes: receipt.down.bytes, upBytes: receipt.up.bytes };
  const sum = (...series: Parameters<typeof finalBytes>[0][]) =>
    series.reduce((total, each) => total + (finalBytes(each) ?? 0), 0);
  return { downBytes: sum(samples.download, samples.bothDown), upBytes: sum(samples.upload, samples.bothUp) };
}
