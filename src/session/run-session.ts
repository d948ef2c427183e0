import { rateSecondsOf, type StripData } from '@/core';
import type { HandIn, HandInAnswer, RunGrant, RunWaiting, StartRun } from '@/wire';
import { askForRun } from './ask-for-run';
import { replyOf, type Post, type Refusal } from './console-link';
import { deliver } from './hand-in';
import type { Outbox } from './outbox';
import { sleep as plainSleep } from './sleep';

/** What a device is doing about a run. */
export type SessionState =
  | { readonly status: 'ready' }
  | { readonly status: 'asking' }
  | { readonly status: 'waiting'; readonly waiting: RunWaiting }
  | { readonly status: 'refused'; readonly problem: Refusal }
  | { readonly status: 'measuring'; readonly grant: RunGrant; readonly strip: StripData | null }
  | {
      readonly status: 'handing-in';
      readonly grant: RunGrant;
      readonly strip: StripData | null;
      /** Why the console has not taken it yet; null at first. */
      readonly away: string | null;
      /** Whether the result would survive the end of this process. */
      readonly kept: boolean;
    }
  | {
      readonly status: 'done';
      readonly grant: RunGrant;
      readonly strip: StripData | null;
      readonly answer: HandInAnswer;
      readonly handIn: HandIn;
    };

/** Measures a granted run; cancels it when `signal` says so, and resolves all the same, with what there is to hand in. */
export type Measure = (grant: RunGrant, signal: AbortSignal, onProgress: (strip: StripData) => void) => Promise<HandIn>;

export interface SessionParts {
  /** Fetches what showing the run needs, before it is asked for: nothing is measured that could not be shown. */
  readonly prepare?: () => Promise<unknown>;
  readonly post: Post;
  readonly outbox: Outbox;
  readonly measure: Measure;
  readonly onState: (state: SessionState) => void;
  readonly sleep?: (ms: number, signal: AbortSignal) => Promise<void>;
}

const ALIVE_MS = 3000;
/** While somebody watches, what was moved is told as often as there is a whole second of it. */
const TOLD_MS = 1000;
/** An upload is counted at the far end, and heard of a little later. */
const LATE_MS = 3000;

/** What keeps a device from a run before the console has said anything. The table in docs/errors.md is held against this one. */
export const SESSION_FAULTS = {
  'console-unreachable': 'The console is not answering. Check the connection of this device, then try again.',
  'console-odd': 'Something answers here that is no console of this version. Load the page again.',
  'page-incomplete':
    'A part of this page could not be fetched. Check the connection of this device, and load the page again.',
} as const;

const refusal = (code: keyof typeof SESSION_FAULTS): Refusal => ({ code, detail: SESSION_FAULTS[code] });

/**
 * One run of a device, from asking to the record: the same for the page and the agent. Everything that it starts ends
 * with it: `close` gives a waiting turn back, cancels a measurement, and leaves a result in the outbox.
 */
export class RunSession {
  readonly #closing = new AbortController();
  #giveUp = new AbortController();
  #cancel = new AbortController();
  #busy = false;

  constructor(private readonly parts: SessionParts) {}

  /** Asks, waits, measures, keeps and hands in; resolves with the last state. One at a time: null while one goes on. */
  async run(order: StartRun): Promise<SessionState | null> {
    if (this.#busy || this.#closing.signal.aborted) return null;
    this.#busy = true;
    try {
      return await this.#run(order);
    } finally {
      this.#busy = false;
    }
  }

  /** Stops waiting for a turn; the console gives it to the next. */
  giveUp(): void {
    this.#giveUp.abort();
  }

  /** Ends the measurement that goes on, without a result. */
  cancel(): void {
    this.#cancel.abort();
  }

  /** Ends everything; the session can run nothing more. */
  close(): void {
    this.#closing.abort();
    this.#giveUp.abort();
    this.#cancel.abort();
  }

  #tell<State extends SessionState>(state: State): State {
    if (!this.#closing.signal.aborted) this.parts.onState(state);
    return state;
  }

  async #run(order: StartRun): Promise<SessionState> {
    const { post, prepare, sleep = plainSleep } = this.parts;
    this.#giveUp = new AbortController();
    this.#cancel = new AbortController();
    if (this.#closing.signal.aborted) this.#giveUp.abort();
    this.#tell({ status: 'asking' });
    const prepared = await (prepare?.() ?? Promise.resolve()).then(
      () => true,
      () => false,
    );
    if (!prepared) return this.#tell({ status: 'refused', problem: refusal('page-incomplete') });
    const asked = await askForRun(order, {
      ...{ post, sleep, signal: this.#giveUp.signal },
      onWaiting: (waiting) => this.#tell({ status: 'waiting', waiting }),
    });
    switch (asked.status) {
      case 'given-up':
        return this.#tell({ status: 'ready' });
      case 'away':
        return this.#tell({ status: 'refused', problem: refusal('console-unreachable') });
      case 'odd':
        return this.#tell({ status: 'refused', problem: refusal('console-odd') });
      case 'refused':
        return this.#tell({ status: 'refused', problem: asked.refusal });
      case 'granted':
        return this.#measured(asked.grant);
    }
  }

  /** Says again and again that it measures, and what, where somebody watches. Returns what ends it. */
  #stayAlive({ runId, runKey }: RunGrant, strip: () => StripData | null): () => void {
    let watched = false;
    let toldToMs = 0;
    const say = async () => {
      const now = watched ? strip() : null;
      const rates = now === null ? null : rateSecondsOf(now, Math.max(0, toldToMs - LATE_MS));
      const body = rates === null ? { runKey } : { runKey, rates };
      const reply = await replyOf(this.parts.post(`/api/v1/runs/${encodeURIComponent(runId)}/alive`, body));
      if (reply.kind !== 'answered') return;
      const said = reply.body as { readonly watched?: unknown; readonly stop?: unknown };
      watched = said.watched === true;
      if (said.stop === true) this.#cancel.abort();
      if (watched && rates !== null) toldToMs = rates.fromMs + TOLD_MS * rates.downBps.length;
    };
    let beat = 0;
    const timer = setInterval(() => {
      beat += 1;
      if (watched || beat % (ALIVE_MS / TOLD_MS) === 0) void say();
    }, TOLD_MS);
    return () => clearInterval(timer);
  }

  async #measured(grant: RunGrant): Promise<SessionState> {
    const { post, measure, outbox, sleep = plainSleep } = this.parts;
    let strip: StripData | null = null;
    this.#tell({ status: 'measuring', grant, strip });
    const alive = this.#stayAlive(grant, () => strip);
    const handIn = await measure(grant, this.#cancel.signal, (progress) => {
      strip = progress;
      this.#tell({ status: 'measuring', grant, strip });
    }).finally(alive);
    const entry = { runId: grant.runId, request: { runKey: grant.runKey, handIn } };
    const kept = await outbox.put(entry).then(
      () => true,
      () => false,
    );
    this.#tell({ status: 'handing-in', grant, strip, away: null, kept });
    const delivered = await deliver(entry, {
      ...{ post, outbox, sleep, signal: this.#closing.signal },
      onAway: (away) => this.#tell({ status: 'handing-in', grant, strip, away, kept }),
    });
    if (delivered === null) return { status: 'handing-in', grant, strip, away: 'closed', kept };
    if (delivered.status === 'refused') return this.#tell({ status: 'refused', problem: delivered.refusal });
    return this.#tell({ status: 'done', grant, strip, answer: delivered.answer, handIn });
  }
}
