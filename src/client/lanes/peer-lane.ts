import { ANSWER_WITHIN_MS, type LaneEcho } from '@/core';
import type { LaneTicket } from '@/wire';
import type { SessionResult } from '../run/open-session';
import type { Probing, ProbeEvents } from '../run/transport';

/** What a page does for a lane to a peer, without a browser around it. */
export interface PeerLaneParts {
  readonly everyMs: number;
  /** Steady, ms. */
  readonly nowMs: () => number;
  /** Of the wall, ms: goes on while a device sleeps. */
  readonly wallMs: () => number;
  /** Asks the console for a ticket. `away`: it does not answer; `no`: it gives none. */
  readonly ticket: () => Promise<LaneTicket | 'away' | 'no'>;
  readonly open: (ticket: LaneTicket) => Promise<SessionResult>;
  readonly probes: (ticket: LaneTicket, session: string, events: ProbeEvents) => Promise<Probing>;
  /** A request, by when it was sent (steady, ms); `key` tells those apart of which more than one thing is heard. */
  readonly onEcho: (sentMs: number, ms: LaneEcho['ms'], key: number) => void;
}

/** An answer that has not come by then is shown as missing until it comes. */
const LATE_MS = 1000;
/** The page was not asked to do anything for so long: the device slept, or held the page back. */
const SLEPT_MS = 3000;
/** A connection of which nothing came back for so long is opened anew: it may stand still for longer than the line. */
const DEAD_MS = 6000;
const AGAIN_MS = 2000;
/** A peer or a console that said no is asked again so much later. */
const REFUSED_MS = 30_000;

interface Pending {
  readonly sentMs: number;
  late: boolean;
}

/** The connection as it stands. */
type Way =
  | { readonly kind: 'none' }
  | { readonly kind: 'opening' }
  | { readonly kind: 'open'; readonly probing: Probing; readonly sinceMs: number; readonly untilMs: number };

/** The peer ends a session with its ticket; this near to it that is what happened. */
const END_MS = 5000;

/**
 * Delay to a peer over its probe socket, a request each `everyMs`, for as long as it is wanted: with a ticket for watching, and a new
 * one when that is over. While nothing can be sent because the peer cannot be reached, each request that would have been due is
 * one without an answer. While the device sleeps, or the peer will not have it, there is none.
 */
export class PeerLane {
  readonly #pending = new Map<number, Pending>();
  #timer: ReturnType<typeof setInterval>;
  #way: Way = { kind: 'none' };
  #sequence = 0;
  #tickedMs: number;
  #answeredMs = -Infinity;
  #againMs = -Infinity;
  /** It should answer and does not. */
  #silent = false;
  /** Requests that were due since a connection broke of which it is not known yet why; null: it did not break. */
  #unsure: number[] | null = null;
  #closed = false;

  constructor(private readonly parts: PeerLaneParts) {
    this.#tickedMs = parts.wallMs();
    this.#timer = setInterval(() => this.#tick(), parts.everyMs);
    this.#tick();
  }

  close(): void {
    this.#closed = true;
    clearInterval(this.#timer);
    this.#drop();
  }

  #tick(): void {
    const { everyMs, nowMs: steady, wallMs } = this.parts;
    const wall = wallMs();
    // What was on its way when the device fell asleep says nothing.
    if (wall - this.#tickedMs > everyMs + SLEPT_MS) {
      this.#pending.clear();
      this.#drop();
    }
    this.#tickedMs = wall;
    const nowMs = steady();
    this.#noteLate(nowMs);
    if (this.#way.kind === 'open') {
      const { probing, sinceMs } = this.#way;
      if (this.#pending.size > 0 && nowMs - Math.max(this.#answeredMs, sinceMs) > DEAD_MS + everyMs) {
        this.#silent = true;
        this.#noteLate(Infinity);
        this.#drop();
      } else return this.#send(probing, nowMs);
    }
    if (this.#silent) this.parts.onEcho(nowMs, null, this.#next());
    else this.#unsure?.push(nowMs);
    if (this.#way.kind === 'none' && nowMs >= this.#againMs) void this.#open();
  }

  #next(): number {
    this.#sequence = (this.#sequence + 1) % 2 ** 32;
    return this.#sequence;
  }

  #send(probing: Probing, nowMs: number): void {
    const key = this.#next();
    this.#pending.set(key, { sentMs: nowMs, late: false });
    probing.send(key);
  }

  #noteLate(nowMs: number): void {
    for (const [key, pending] of this.#pending) {
      const waitedMs = nowMs - pending.sentMs;
      if (waitedMs >= LATE_MS && !pending.late) {
        pending.late = true;
        this.parts.onEcho(pending.sentMs, null, key);
      }
      if (waitedMs > ANSWER_WITHIN_MS && nowMs < Infinity) this.#pending.delete(key);
    }
  }

  #hear(key: number): void {
    const pending = this.#pending.get(key);
    if (pending === undefined) return;
    const nowMs = this.parts.nowMs();
    this.#pending.delete(key);
    this.#answeredMs = nowMs;
    this.#silent = false;
    const ms = nowMs - pending.sentMs;
    if (ms <= ANSWER_WITHIN_MS) this.parts.onEcho(pending.sentMs, ms, key);
  }

  /** Closes what is open; what was sent over it and not answered stays as it was noted. */
  #drop(): void {
    const way = this.#way;
    this.#way = { kind: 'none' };
    this.#pending.clear();
    if (way.kind === 'open') way.probing.close();
  }

  async #open(): Promise<void> {
    const { nowMs } = this.parts;
    const opening = (this.#way = { kind: 'opening' } as Way);
    const isOver = () => this.#closed || this.#way !== opening;
    const waits = (ms: number, silent: boolean) => {
      if (isOver()) return;
      this.#way = { kind: 'none' };
      if (silent) for (const dueMs of this.#unsure ?? []) this.parts.onEcho(dueMs, null, this.#next());
      this.#unsure = null;
      this.#silent = silent;
      this.#againMs = nowMs() + ms;
    };
    const ticket = await this.parts.ticket();
    // Without the console it is not known whether the peer is there, unless it broke off by itself.
    if (ticket === 'away') return waits(AGAIN_MS, this.#silent || this.#unsure !== null);
    if (ticket === 'no') return waits(REFUSED_MS, false);
    const opened = await this.parts.open(ticket);
    if (!opened.ok) {
      const silent = opened.reason === 'peer-unreachable';
      return waits(silent ? AGAIN_MS : REFUSED_MS, silent);
    }
    let probing: Probing | null = null;
    const onClose = () => {
      if (probing === null || this.#way.kind !== 'open' || this.#way.probing !== probing) return;
      if (nowMs() < this.#way.untilMs - END_MS) this.#unsure = [];
      this.#drop();
      void this.#open();
    };
    try {
      probing = await this.parts.probes(ticket, opened.opened.session, {
        onEcho: (sequence) => this.#hear(sequence),
        onClose,
      });
    } catch {
      return waits(AGAIN_MS, true);
    }
    if (isOver()) return probing.close();
    this.#unsure = null;
    this.#way = { kind: 'open', probing, sinceMs: nowMs(), untilMs: nowMs() + 1000 * ticket.seconds };
  }
}
