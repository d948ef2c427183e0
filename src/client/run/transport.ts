import type { ClientSightings, UdpSeries, UnfinishedReason } from '@/core';
import type { SessionOpened } from '@/wire';
import type { TroubleReports } from './trouble-reports';

/** What the far end said about the client and itself. */
export type Opened = Pick<SessionOpened, 'sameMachine' | 'ipVersion' | 'interfaceBps'>;

export type OpenResult =
  | { readonly ok: true; readonly opened: Opened }
  | { readonly ok: false; readonly reason: UnfinishedReason };

/** A WebSocket to the peer. */
export interface PeerSocket {
  send(data: Uint8Array<ArrayBuffer> | string): void;
  close(): void;
}

export interface SocketEvents {
  readonly onMessage: (data: ArrayBuffer | string) => void;
  readonly onClose: () => void;
}

/** Probes of the delay: one is sent, and its echo is told once, with the far end's clock where that tells one. */
export interface Probing {
  send(sequence: number): void;
  close(): void;
}

export interface ProbeEvents {
  /**
   * `farMs`: the far end's monotonic clock when it answered; null where it tells none. `waitedMs`: how long it lay on this device before
   * it was sent, as far as that is known; absent: not.
   */
  readonly onEcho: (sequence: number, farMs: number | null, waitedMs?: number) => void;
  readonly onClose: () => void;
}

/** Running streams of one direction. */
export interface Load {
  /** Brings the number of streams up to `streams`. */
  grow(streams: number): void;
  stop(): void;
}

export interface UdpPace {
  readonly packetsPerSecond: number;
  readonly sizeBytes: number;
}

export interface UdpProbing {
  /** Probes a second from now on, never more than this client's usual number; null: the usual number. */
  probe(perSecond: number | null): void;
  /** Sends at a pace of its own from now on; null: back to probing. Null itself where no pace can be held. */
  readonly pace: ((load: UdpPace | null) => void) | null;
  /**
   * Stops sending, waits for the last replies, and gives the whole series on the run's clock, which was 0 at `originMs`.
   * `received`: what the peer says it got.
   */
  finish(received: () => Promise<number | null>, originMs: number): Promise<UdpSeries | null>;
  stop(): void;
}

/** What the orchestrator needs of the place where it runs: a browser's worker, or Node. Times in ms, one monotonic clock. */
export interface Transport {
  nowMs(): number;
  wallMs(): number;
  /** Trades the ticket for a session. */
  open(signal: AbortSignal): Promise<OpenResult>;
  /** What is said about the run while it goes on. */
  openControl(events: SocketEvents): Promise<PeerSocket>;
  openProbes(events: ProbeEvents): Promise<Probing>;
  /** Calls back about every 50 ms with the time and the cumulative payload bytes of each stream. */
  startDownload(streams: number, onCounted: (nowMs: number, bytes: readonly number[]) => void): Load;
  /** `idleRttMs`: of the empty line; null while not known. */
  startUpload(streams: number, idleRttMs: number | null): Load;
  /** Null where UDP cannot be used. */
  startUdp(): Promise<UdpProbing | null>;
  /** What the client sees of itself, as it stands. */
  sightings(): Pick<ClientSightings, 'selfReadBps' | 'otherTraffic' | 'powerSaving' | 'clockStepMs' | 'reader'>;
  /** What it tried and could not do. */
  readonly troubles: TroubleReports;
}
