import { randomBytes } from 'node:crypto';
import type { TicketClaims } from '@/wire/ticket';
import type { ControlMessage } from '@/wire';

export type Direction = TicketClaims['directions'][number];

/** Something that a session must stop when it ends: a stream, a socket. */
export interface Closable {
  destroy(): void;
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
  readonly #others = new Set<Closable>();
  #movedBytes = 0;
  #push: ((message: ControlMessage) => void) | null = null;
  #pushTimer: NodeJS.Timeout | null = null;
  #ended = false;

  constructor(
    readonly claims: TicketClaims,
    private readonly monotonicMs: () => number,
    private readonly onEnd: (session: Session) => void,
  ) {}

  get ended(): boolean {
    return this.#ended;
  }

  openStreams(direction: Direction): number {
    return this.#open.get(direction)!.size;
  }

  /** Keeps a stream of one direction until it is released; returns the release. */
  hold(direction: Direction, closable: Closable): () => void {
    const held = this.#open.get(direction)!;
    held.add(closable);
    return () => held.delete(closable);
  }

  /** Keeps a socket that is no stream (control, probe); returns the release. */
  holdSocket(closable: Closable): () => void {
    this.#others.add(closable);
    return () => this.#others.delete(closable);
  }

  remainingBytes(): number {
    return this.claims.limits.bytes - this.#movedBytes;
  }

  /** Counts bytes against the limit. False, once and for all streams, when the limit is used up. */
  spend(bytes: number): boolean {
    this.#movedBytes += bytes;
    if (this.remainingBytes() >= 0) return true;
    this.#push?.({ kind: 'limit-reached', code: 'limit-bytes' });
    this.stopStreams();
    return false;
  }

  countUpload(stream: number, bytes: number): void {
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
    this.#push?.({ kind: 'upload-counters', atMs: this.monotonicMs(), bytes: [...this.#uploaded] });
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
    for (const socket of this.#others) socket.destroy();
    this.onEnd(this);
  }
}
