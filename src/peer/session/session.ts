import { randomBytes } from 'node:crypto';
import type { Socket } from 'node:net';
import type { Receipt } from '@/core';
import type { TicketClaims } from '@/wire/peer/ticket';
import type { ControlMessage } from '@/wire';
import { DirectionCount, NOTHING_SEEN, type SessionSightings } from './session-receipt';

export type Direction = TicketClaims['directions'][number];

export type SocketKind = 'control' | 'probe';

export interface HeldSocket {
  closeBy(closable: Closable): void;
  release(): void;
}

/** Something that a session must stop when it ends: a stream, a socket. */
export interface Closable {
  destroy(): void;
}

/** How many UDP packets of a client have arrived. */
export interface UdpCount {
  readonly received: () => number;
  close(): void;
}

/** Time between two pushes of upload counters, ms. */
export const COUNTER_PUSH_MS = 50;

/**
 * One client's measurement: its limits, the upload counters per stream (payload bytes received), and everything that
 * is open on its behalf. It ends when its control connection closes, when its time is up or when its bytes are used.
 */
export class Session {
  readonly id = randomBytes(18).toString('base64url');
  readonly #uploaded: number[] = [];
  readonly #open = new Map<Direction, Set<Closable>>([
    ['down', new Set()],
    ['up', new Set()],
  ]);
  readonly #sockets = { control: new Set<{ closable: Closable }>(), probe: new Set<{ closable: Closable }>() };
  readonly #clientPorts = new Set<number>();
  #localPort: number | null = null;
  #movedBytes = 0;
  #movedAtLook = 0;
  readonly #moved: Record<Direction, DirectionCount>;
  readonly #openedMs: number;
  readonly seen: SessionSightings = { ...NOTHING_SEEN };
  #push: ((message: ControlMessage) => void) | null = null;
  #pushTimer: NodeJS.Timeout | null = null;
  #udp: UdpCount | null = null;
  #ended = false;

  constructor(
    readonly claims: TicketClaims,
    private readonly monotonicMs: () => number,
    private readonly onEnd: (session: Session) => void,
  ) {
    this.#openedMs = monotonicMs();
    this.#moved = { down: new DirectionCount(monotonicMs), up: new DirectionCount(monotonicMs) };
  }

  get ended(): boolean {
    return this.#ended;
  }

  /** The port of this peer that the streams came to; null before the first. */
  get localPort(): number | null {
    return this.#localPort;
  }

  openStreams(direction: Direction): number {
    return this.#open.get(direction)!.size;
  }

  /** Client ports of all streams so far: how the kernel's view of them is found. */
  clientPorts(): ReadonlySet<number> {
    return this.#clientPorts;
  }

  /** Keeps a request of a stream of one direction until it is released; returns the release. */
  hold(direction: Direction, stream: number, closable: Closable, socket: Socket): () => void {
    const held = this.#open.get(direction)!;
    held.add(closable);
    if (socket.remotePort !== undefined) this.#clientPorts.add(socket.remotePort);
    this.#localPort = socket.localPort ?? this.#localPort;
    const end = this.#moved[direction].begin(stream);
    return () => {
      end();
      held.delete(closable);
    };
  }

  openSockets(kind: SocketKind): number {
    return this.#sockets[kind].size;
  }

  /** Keeps a socket that is no stream until it is released: how it is closed can be set once it is open. */
  holdSocket(kind: SocketKind, closable: Closable): HeldSocket {
    const held = { closable };
    this.#sockets[kind].add(held);
    return {
      closeBy: (better) => (held.closable = better),
      release: () => this.#sockets[kind].delete(held),
    };
  }

  remainingBytes(): number {
    return this.claims.limits.bytes - this.#movedBytes;
  }

  movedSinceLastLook(): boolean {
    const moved = this.#movedBytes > this.#movedAtLook;
    this.#movedAtLook = this.#movedBytes;
    return moved;
  }

  /** Counts bytes against the limit. False, once and for all streams, when the limit is used up. */
  spend(bytes: number): boolean {
    this.#movedBytes += bytes;
    if (this.remainingBytes() >= 0) return true;
    this.tell({ kind: 'limit-reached', code: 'limit-bytes' });
    this.stopStreams();
    return false;
  }

  countDownload(stream: number, bytes: number): void {
    this.#moved.down.count(stream, bytes);
  }

  countUpload(stream: number, bytes: number): void {
    this.#moved.up.count(stream, bytes);
    while (this.#uploaded.length <= stream) this.#uploaded.push(0);
    this.#uploaded[stream]! += bytes;
  }

  /** Begins to push upload counters as soon as an upload has begun. */
  startCounters(): void {
    if (this.#pushTimer !== null || this.#ended) return;
    this.#pushTimer = setInterval(() => this.#pushCounters(), COUNTER_PUSH_MS);
    this.#pushCounters();
  }

  #pushCounters(): void {
    this.tell({ kind: 'upload-counters', atMs: this.monotonicMs(), bytes: [...this.#uploaded] });
  }

  /** What this session moved and saw, as the peer signs for it. */
  receipt(): Receipt {
    const { echoes, sameMachine, ipVersion, minRttMs, otherSessions } = this.seen;
    return {
      echoes,
      sameMachine,
      ipVersion,
      minRttMs,
      otherSessions,
      session: this.id,
      runId: this.claims.runId,
      ticketId: this.claims.id,
      openedMs: this.#openedMs,
      endedMs: this.monotonicMs(),
      down: this.#moved.down.receipt(),
      up: this.#moved.up.receipt(),
    };
  }

  /** Takes the place of an earlier admission. */
  attachUdp(udp: UdpCount): void {
    this.#udp?.close();
    this.#udp = udp;
  }

  /** How many UDP packets of this client have arrived; 0 while it sends none. */
  udpReceived(): number {
    return this.#udp?.received() ?? 0;
  }

  /** Says something over the control connection, if it is there. */
  tell(message: ControlMessage): void {
    this.#push?.(message);
  }

  attachControl(push: (message: ControlMessage) => void): void {
    this.#push = push;
  }

  stopStreams(): void {
    for (const held of this.#open.values()) for (const stream of held) stream.destroy();
  }

  end(): void {
    if (this.#ended) return;
    this.#ended = true;
    if (this.#pushTimer !== null) clearInterval(this.#pushTimer);
    this.stopStreams();
    for (const held of Object.values(this.#sockets)) for (const { closable } of held) closable.destroy();
    this.#udp?.close();
    this.onEnd(this);
  }
}
