import type { KeyObject } from 'node:crypto';
import { done, failed, type Outcome, type PeerFaultCode } from '@/wire';
import { checkTicket, publicKeyText, signReceipt } from '@/wire/peer/ticket';
import type { OnPeerEvent } from '../peer-events';
import { Session } from './session';
import { SessionWatch } from './session-watch';

export interface SessionRegistryOptions {
  readonly trusted: readonly KeyObject[];
  readonly mostSessions: number;
  /** UTC epoch ms, for the times in tickets. */
  readonly wallMs: () => number;
  /** Monotonic ms, for everything that is measured. */
  readonly monotonicMs: () => number;
  /** Signs receipts, and names this peer in tickets; null: it does neither. */
  readonly identity?: KeyObject | null | undefined;
  readonly onEvent?: OnPeerEvent | undefined;
}

/** So many watch at a time: each costs a connection, and a probe a second. */
export const MOST_WATCHING = 200;
/** A session whose client never opens its control connection (or, who only watches, its probes) is given up after this, ms. */
export const CONTROL_DEADLINE_MS = 10_000;
/** Receipts are kept for whoever could not take his along. */
const KEEP_RECEIPTS_MS = 3600_000;
const MOST_RECEIPTS = 500;

/** Whoever reads a log must not get into a session that goes on. */
const shortId = (id: string) => id.slice(0, 6);

/** Opens sessions for good tickets, each once, and finds them again by id. */
export class SessionRegistry {
  readonly #sessions = new Map<string, Session>();
  /** Ticket id → its expiry, kept until then so that a ticket serves once. */
  readonly #used = new Map<string, number>();
  readonly #timers = new Map<Session, NodeJS.Timeout[]>();

  /** Ticket id → what was signed when its session ended, the oldest first. */
  readonly #receipts = new Map<string, { readonly text: string; readonly untilMs: number }>();
  readonly #ownKey: string | null;
  readonly #watch: SessionWatch;

  constructor(private readonly options: SessionRegistryOptions) {
    this.#ownKey = options.identity ? publicKeyText(options.identity) : null;
    this.#watch = new SessionWatch(() => this.#measuring(), options.monotonicMs);
  }

  /** How many measure. */
  get active(): number {
    return this.#measuring().length;
  }

  get watching(): number {
    return this.#sessions.size - this.active;
  }

  #measuring(): Session[] {
    return [...this.#sessions.values()].filter(({ claims }) => claims.watch !== true);
  }

  get most(): number {
    return this.options.mostSessions;
  }

  /** `address`: of the client, to be written down. */
  open(ticket: string | null, address: string | null = null): Outcome<Session, PeerFaultCode> {
    const opened = this.#open(ticket);
    const { onEvent } = this.options;
    if (!opened.ok) onEvent?.({ kind: 'ticket-refused', code: opened.fault.code, address });
    else {
      const { id, claims } = opened.value;
      onEvent?.({ kind: 'session-opened', run: claims.runId, session: shortId(id), address });
    }
    return opened;
  }

  #open(ticket: string | null): Outcome<Session, PeerFaultCode> {
    const nowMs = this.options.wallMs();
    const checked = checkTicket(ticket, this.options.trusted, nowMs);
    if (!checked.ok) return checked;
    const claims = checked.value;
    if (claims.peerKey !== null && this.#ownKey !== null && claims.peerKey !== this.#ownKey)
      return failed('ticket-elsewhere');
    const isWatching = claims.watch === true;
    // A device has one run at a time, and one watch for each of its lanes: a new ticket ends what it still holds open.
    for (const session of [...this.#sessions.values()])
      if (
        session.claims.deviceId === claims.deviceId &&
        (session.claims.watch === true) === isWatching &&
        (!isWatching || session.claims.runId === claims.runId)
      )
        session.end();
    for (const [id, expiresAtMs] of this.#used) if (expiresAtMs < nowMs) this.#used.delete(id);
    if (this.#used.has(claims.id)) return failed('ticket-used');
    if (isWatching ? this.watching >= MOST_WATCHING : this.active >= this.options.mostSessions)
      return failed('peer-busy', { active: isWatching ? this.watching : this.active });
    this.#used.set(claims.id, claims.expiresAtMs);
    const session = new Session(claims, this.options.monotonicMs, (ended) => this.#forget(ended));
    this.#sessions.set(session.id, session);
    if (!isWatching) this.#watch.start();
    this.#timers.set(session, [
      setTimeout(() => session.end(), claims.limits.seconds * 1000),
      setTimeout(() => session.end(), CONTROL_DEADLINE_MS),
    ]);
    return done(session);
  }

  find(id: string | null): Outcome<Session, PeerFaultCode> {
    const session = id === null ? undefined : this.#sessions.get(id);
    return session === undefined ? failed('session-unknown') : done(session);
  }

  /** The connection is there that the session lives as long as: control, or the probes of one that only watches. */
  controlled(session: Session): void {
    clearTimeout(this.#timers.get(session)?.[1]);
  }

  /** What this peer signs for a session as it stands; null where it has no key. */
  signed(session: Session): string | null {
    const { identity } = this.options;
    return identity ? signReceipt(session.receipt(), identity) : null;
  }

  /** What was signed for a session that has ended lately; null: none, or not any more. */
  receiptOf(ticketId: string): string | null {
    return this.#receipts.get(ticketId)?.text ?? null;
  }

  #keepReceipt(session: Session): void {
    const text = this.signed(session);
    if (text === null) return;
    const nowMs = this.options.monotonicMs();
    for (const [ticketId, { untilMs }] of this.#receipts)
      if (untilMs < nowMs || this.#receipts.size >= MOST_RECEIPTS) this.#receipts.delete(ticketId);
    this.#receipts.set(session.claims.id, { text, untilMs: nowMs + KEEP_RECEIPTS_MS });
  }

  #forget(session: Session): void {
    if (session.claims.watch !== true) this.#keepReceipt(session);
    this.#sessions.delete(session.id);
    const { runId, down, up, openedMs, endedMs } = session.receipt();
    this.options.onEvent?.({
      ...{ kind: 'session-ended', run: runId, session: shortId(session.id), tookMs: endedMs - openedMs },
      ...{ downBytes: down.bytes, upBytes: up.bytes },
    });
    for (const timer of this.#timers.get(session) ?? []) clearTimeout(timer);
    this.#timers.delete(session);
    if (this.active === 0) this.#watch.stop();
  }

  endAll(): void {
    for (const session of [...this.#sessions.values()]) session.end();
  }
}
