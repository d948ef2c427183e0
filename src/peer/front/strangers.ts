import { readFileSync } from 'node:fs';
import type { Duplex } from 'node:stream';

/** Connections that have not shown a session or been let in by the console. */
export interface StrangerLimits {
  /** Of one address; Infinity where everybody comes by one, behind a proxy. */
  readonly perAddress: number;
  readonly inAll: number;
  /** A whole head must be there by then, TLS included, ms; and again after each answer. */
  readonly headMs: number;
  /** A body that stands still for so long is given up, ms. */
  readonly bodyIdleMs: number;
}

/** Half of the descriptors that this process may open: the rest is for those that measure. */
function descriptorsForStrangers(): number {
  try {
    const soft = Number(/Max open files\s+(\d+)/.exec(readFileSync('/proc/self/limits', 'utf8'))?.[1]);
    return Number.isFinite(soft) ? Math.max(16, Math.floor(soft / 2)) : 1024;
  } catch {
    return 1024;
  }
}

export const USUAL_LIMITS: StrangerLimits = {
  perAddress: 64,
  inAll: Math.min(4096, descriptorsForStrangers()),
  headMs: 10_000,
  bodyIdleMs: 20_000,
};

interface Stranger {
  readonly address: string;
  readonly close: () => void;
  /** Whether an answer is under way: those that only wait go first. */
  busy: boolean;
  timer: ReturnType<typeof setTimeout> | undefined;
}

/** What is told about one connection. */
export interface StrangerEntry {
  /** A whole head has come; an answer is under way. */
  asked(): void;
  /** The answer is complete: another head may follow, within its time. */
  answered(): void;
  /** It has shown a session, or was let in: it is no stranger any more. */
  known(): void;
}

/**
 * Keeps strangers from holding the door: each must say what it wants in time, and of too many the oldest go first, those
 * that only wait before those that are being answered.
 */
export class Strangers {
  readonly #open = new Map<Duplex, Stranger>();
  readonly #counts = new Map<string, number>();

  constructor(private readonly limits: StrangerLimits = USUAL_LIMITS) {}

  get count(): number {
    return this.#open.size;
  }

  /** A connection was made. It is forgotten when it closes. */
  enter(connection: Duplex, address: string): StrangerEntry {
    const stranger: Stranger = { address, close: () => connection.destroy(), busy: false, timer: undefined };
    this.#open.set(connection, stranger);
    this.#counts.set(address, (this.#counts.get(address) ?? 0) + 1);
    const leave = () => this.#leave(connection);
    connection.once('close', leave);
    const awaitHead = () => {
      clearTimeout(stranger.timer);
      stranger.timer = setTimeout(stranger.close, this.limits.headMs);
    };
    awaitHead();
    this.#makeRoom(address);
    return {
      asked: () => {
        stranger.busy = true;
        clearTimeout(stranger.timer);
      },
      answered: () => {
        stranger.busy = false;
        if (this.#open.has(connection)) awaitHead();
      },
      known: leave,
    };
  }

  #leave(connection: Duplex): void {
    const stranger = this.#open.get(connection);
    if (stranger === undefined) return;
    clearTimeout(stranger.timer);
    this.#open.delete(connection);
    const left = this.#counts.get(stranger.address)! - 1;
    if (left === 0) this.#counts.delete(stranger.address);
    else this.#counts.set(stranger.address, left);
  }

  #makeRoom(address: string): void {
    if (this.#counts.get(address)! > this.limits.perAddress) this.#dropOldest((other) => other.address === address);
    if (this.#open.size > this.limits.inAll) this.#dropOldest(() => true);
  }

  #dropOldest(fits: (stranger: Stranger) => boolean): void {
    const candidates = [...this.#open].filter(([, stranger]) => fits(stranger));
    const oldest = candidates.find(([, { busy }]) => !busy) ?? candidates[0];
    if (oldest === undefined) return;
    this.#leave(oldest[0]);
    oldest[1].close();
  }
}
