import {
  longLook,
  PACED_BYTES,
  stripDataOf,
  type ClientSightings,
  type RunProfile,
  type RunSamples,
  type StripData,
  type UnfinishedReason,
} from '@/core';
import { readControlMessage, type SessionOpened } from '@/wire';
import { stepRun } from './run-machine';
import { samplesOf, STARTING, type LoadDirection, type RunEffect, type RunEvent, type RunState } from './run-state';
import type { Load, PeerSocket, Probing, Transport, UdpPace, UdpProbing } from './transport';

/** What the peer said about the client and itself when the session was opened. */
export type SeenByPeer = Pick<SessionOpened, 'sameMachine' | 'ipVersion'> & { readonly peerLinkBps: number | null };

export type RunNews =
  | { readonly kind: 'progress'; readonly strip: StripData }
  /** `receipt`: what the peer signed for, as text; null when it did not come. */
  | {
      readonly kind: 'finished';
      readonly samples: RunSamples;
      readonly seen: SeenByPeer;
      readonly receipt: string | null;
    }
  | {
      readonly kind: 'failed';
      readonly reason: UnfinishedReason;
      readonly samples: RunSamples;
      readonly seen: SeenByPeer | null;
    };

/** What the console wishes of one run, beyond its profile. */
export interface RunWishes {
  /** Rate of the UDP of a paced run, bits per second. */
  readonly pacedBps?: number | null;
  /** Each direction lasts at least so long, ms. */
  readonly leastDirectionMs?: number;
}

const TICK_MS = 50;
const PICTURE_MS = 100;
/** A timer that is late by less than this is not worth a note. */
const STALL_MS = 25;
const COUNTS_PATIENCE_MS = 800;
const RECEIPT_PATIENCE_MS = 2500;

function paceOf(rateBps: number): UdpPace {
  return { packetsPerSecond: rateBps / 8 / PACED_BYTES, sizeBytes: PACED_BYTES };
}

/**
 * Performs a run's effects through a transport and feeds what happens back into the machine. The same for browser and
 * Node. Returns what cancels the run.
 */
export function startRun(
  transport: Transport,
  usual: RunProfile,
  report: (news: RunNews) => void,
  { pacedBps = null, leastDirectionMs = 0 }: RunWishes = {},
): { cancel(): void } {
  const profile = longLook(usual, leastDirectionMs);
  const originMs = transport.nowMs();
  const wallMs = transport.wallMs();
  const nowMs = () => transport.nowMs() - originMs;
  const opening = new AbortController();
  let state: RunState = STARTING;
  let seen: SeenByPeer | null = null;
  let control: PeerSocket | null = null;
  let probe: Probing | null = null;
  let udp: UdpProbing | null = null;
  let answerCounts: ((received: number | null) => void) | null = null;
  let answerReceipt: ((receipt: string | null) => void) | null = null;
  let receipt: string | null = null;
  const loads: Record<LoadDirection, Load | null> = { download: null, upload: null };
  let nextSequence = 0;
  let probeTimer: ReturnType<typeof setInterval> | undefined;

  const clientSightings = (): ClientSightings => ({
    ...transport.sightings(),
    wallMs,
    wallSpanMs: transport.wallMs() - wallMs,
    spanMs: nowMs(),
    stalls: state.log.stalls,
    troubles: state.log.troubles,
  });
  const samples = () => samplesOf(state, profile.name, clientSightings());

  const perform = (effect: RunEffect) => {
    switch (effect.kind) {
      case 'start-probes':
        sendProbe();
        probeTimer = setInterval(sendProbe, 1000 / profile.probesPerSecond);
        return;
      case 'start-load':
        loads[effect.direction] =
          effect.direction === 'download'
            ? transport.startDownload(effect.streams, (atMs, bytes) =>
                dispatch({ kind: 'download-counted', nowMs: atMs - originMs, bytes }),
              )
            : transport.startUpload(effect.streams, effect.idleRttMs);
        return;
      case 'add-stream':
        loads[effect.direction]?.grow(effect.streams);
        return;
      case 'stop-load':
        loads[effect.direction]?.stop();
        loads[effect.direction] = null;
        return;
      case 'pace-probes':
        udp?.probe(effect.perSecond);
        return;
      case 'start-pace':
        udp?.pace?.(paceOf(pacedBps!));
        return;
      case 'stop-pace':
        udp?.pace?.(null);
        return;
      case 'finish-udp':
        void finishUdp();
        return;
      case 'close':
        close();
    }
  };

  const dispatch = (event: RunEvent) => {
    const before = state.status;
    const step = stepRun(state, event, profile);
    state = step.state;
    const ended = state.status !== before && (state.status === 'finished' || state.status === 'failed');
    // The sightings are taken before everything is closed.
    const gathered = ended ? samples() : null;
    step.effects.forEach(perform);
    if (gathered === null) return;
    if (state.status === 'finished') report({ kind: 'finished', samples: gathered, seen: seen!, receipt });
    if (state.status === 'failed') report({ kind: 'failed', reason: state.reason, samples: gathered, seen });
  };

  const sendProbe = () => {
    if (probe === null) return;
    dispatch({ kind: 'probe-sent', sequence: nextSequence, nowMs: nowMs() });
    probe.send(nextSequence);
    nextSequence += 1;
  };

  /** Asks the peer how many UDP packets it got. */
  const peerCounts = () =>
    new Promise<number | null>((resolve) => {
      answerCounts = resolve;
      setTimeout(() => resolve(null), COUNTS_PATIENCE_MS);
      control?.send(JSON.stringify({ kind: 'udp-counts' }));
    });

  /** Tells the peer that the session is over, and asks what it signs for. */
  const peerReceipt = () =>
    new Promise<string | null>((resolve) => {
      answerReceipt = resolve;
      setTimeout(() => resolve(null), RECEIPT_PATIENCE_MS);
      control?.send(JSON.stringify({ kind: 'receipt' }));
    });

  const finishUdp = async () => {
    const series = await (udp?.finish(peerCounts, originMs) ?? Promise.resolve(null)).catch(() => null);
    receipt = over() ? null : await peerReceipt();
    dispatch({ kind: 'udp-finished', udp: series, nowMs: nowMs() });
  };

  let dueMs = nowMs() + TICK_MS;
  const tickTimer = setInterval(() => {
    const at = nowMs();
    if (at - dueMs > STALL_MS) dispatch({ kind: 'stalled', nowMs: at, lateMs: at - dueMs });
    dueMs = at + TICK_MS;
    dispatch({ kind: 'tick', nowMs: at });
  }, TICK_MS);
  const pictureTimer = setInterval(() => {
    if (state.status !== 'measuring') return;
    report({ kind: 'progress', strip: stripDataOf(samplesOf(state, profile.name, null), nowMs()) });
  }, PICTURE_MS);

  const close = () => {
    for (const timer of [tickTimer, pictureTimer, probeTimer]) clearInterval(timer);
    opening.abort();
    loads.download?.stop();
    loads.upload?.stop();
    udp?.stop();
    control?.close();
    probe?.close();
  };
  const over = () => state.status === 'finished' || state.status === 'failed';

  const onControl = (data: ArrayBuffer | string) => {
    const message = readControlMessage(data);
    switch (message?.kind) {
      case 'upload-counters':
        return dispatch({ kind: 'upload-counted', peerMs: message.atMs, bytes: message.bytes });
      case 'limit-reached':
        return dispatch({ kind: 'limit-reached', nowMs: nowMs() });
      case 'kernel':
        return dispatch({ kind: 'kernel-seen', sightings: message.sightings });
      case 'load':
        return dispatch({ kind: 'peer-load', sample: message.sample });
      case 'udp-counts':
        return answerCounts?.(message.received);
      case 'receipt':
        return answerReceipt?.(message.receipt);
      case undefined:
    }
  };

  const open = async () => {
    const lost = (reason: UnfinishedReason) => dispatch({ kind: 'lost', reason, nowMs: nowMs() });
    const result = await transport.open(opening.signal);
    if (!result.ok) return lost(result.reason);
    const { sameMachine, ipVersion, interfaceBps } = result.opened;
    seen = { sameMachine, ipVersion, peerLinkBps: interfaceBps };
    const onClose = () => lost('peer-gone');
    try {
      control = await transport.openControl({ onMessage: onControl, onClose });
      probe = await transport.openProbes({
        onClose,
        onEcho: (sequence, peerMs, waitedMs = 0) =>
          dispatch({ kind: 'probe-echoed', sequence, peerMs, waitedMs, nowMs: nowMs() }),
      });
    } catch {
      lost('no-echo');
    }
    if (over()) return close();
    if (profile.udp) udp = await transport.startUdp();
    if (over()) return close();
    if (profile.steps.includes('paced') && (pacedBps === null || !udp?.pace)) return lost('no-udp');
    dispatch({ kind: 'opened', nowMs: nowMs() });
  };

  transport.troubles.hear(({ code, detail }) => dispatch({ kind: 'troubled', code, detail, nowMs: nowMs() }));
  void open();
  return { cancel: () => dispatch({ kind: 'cancelled', nowMs: nowMs() }) };
}
